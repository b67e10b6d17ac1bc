"use client";
import { Moon } from "lucide-react";
import { themeAction } from "./actions";

/** Light for the day, dark for dim workshops. Kept in a cookie, so that the page arrives right. */
export function ThemeKey() {
  const flip = () => {
    const next = document.documentElement.dataset.theme === "dark" ? "light" : "dark";
    document.documentElement.dataset.theme = next;
    void themeAction(next);
  };
  return (
    <button type="button" className="key" onClick={flip}>
      <Moon size={16} aria-hidden />
      Light or dark
    </button>
  );
}
