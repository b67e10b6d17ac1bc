"use client";
import { useState } from "react";
import type { PartNode } from "../../core/assembly";
import { Button } from "../../ui/button";
import { Field } from "../../ui/field";
import { ask } from "../frame/ask";
import { useFound } from "../frame/use-found";

/** Which part is really there: those of its kind on the shelf, by words. */
export function AnotherPart({ part, onSay }: { part: PartNode; onSay: (type: string, name: string, serial: string) => void }) {
  const [text, setText] = useState("");
  const [serial, setSerial] = useState("");
  const { kind, id } = part.type;
  const { found, sentence } = useFound((words) => ask("shelf.search", { text: words, kind }), text);
  const rows = found?.rows.filter((r) => r.id !== id) ?? [];
  return (
    <div className="flex flex-col gap-4">
      <Field bench word="Words of its name" value={text} maxLength={80} onChange={(e) => setText(e.target.value)} />
      <Field bench word="Its serial, if it has one: scan, or type" value={serial} maxLength={80} onChange={(e) => setSerial(e.target.value)} />
      <div role="status">
        {sentence || (found ? (rows.length === 0 ? "The shelf has no other of this kind with these words." : "") : "Looking …")}
      </div>
      <ul className="flex flex-col gap-3">
        {rows.map((r) => (
          <li key={r.id}>
            <Button bench className="min-h-20 w-full items-start px-4 text-left" onClick={() => onSay(r.id, r.name, serial.trim())}>
              {r.name}
            </Button>
          </li>
        ))}
      </ul>
      {found?.more ? <p className="text-soft">There are more: say more of its name.</p> : null}
    </div>
  );
}
