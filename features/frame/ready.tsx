"use client";
import { useEffect } from "react";

/** Marks the page once its keys work: before that a press goes nowhere. Last in the body, so that all else has its effects by then. */
export function Ready() {
  useEffect(() => {
    document.documentElement.dataset.ready = "yes";
  }, []);
  return null;
}
