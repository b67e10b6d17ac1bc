"use client";
import { Delete } from "lucide-react";
import { Button } from "./button";

/** Digits on keys as large as the bench's. */
export function DigitKeys({ value, most, onChange }: { value: string; most: number; onChange: (value: string) => void }) {
  const add = (d: string) => onChange(`${value}${d}`.slice(0, most));
  return (
    <fieldset className="grid w-full grid-cols-3 gap-3">
      <legend className="sr-only">Digits</legend>
      {["1", "2", "3", "4", "5", "6", "7", "8", "9"].map((d) => (
        <Button key={d} bench className="mono px-0" onClick={() => add(d)}>
          {d}
        </Button>
      ))}
      <Button bench className="px-0" onClick={() => onChange(value.slice(0, -1))}>
        <Delete size={28} aria-hidden />
        <span className="sr-only">Take the last digit back</span>
      </Button>
      <Button bench className="mono px-0" onClick={() => add("0")}>
        0
      </Button>
    </fieldset>
  );
}
