"use client";
import { Plus } from "lucide-react";
import { useState } from "react";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { addPartAction } from "../actions/parts";
import { ask } from "../frame/ask";
import { useAct } from "../frame/use-act";
import { useFound } from "../frame/use-found";
import { KIND_WORD } from "../shared/kinds";

/** Parts from the shelf by search. The dialog stays open: several join one after another. */
export function AddParts({ number }: { number: string }) {
  const [open, setOpen] = useState(false);
  const [text, setText] = useState("");
  const act = useAct();
  const { found, sentence } = useFound(open ? (words) => ask("shelf.search", { text: words }) : undefined, text);
  const rows = found?.rows ?? [];
  return (
    <Dialog
      open={open}
      onOpenChange={setOpen}
      title="Add parts from the shelf"
      className="h-[80vh] w-[620px]"
      trigger={
        <Button>
          <Plus size={16} aria-hidden />
          Add parts
        </Button>
      }
    >
      <label>
        <span className="sr-only">Find a part type</span>
        <input className="field w-full" placeholder="Name, maker or kind" value={text} maxLength={80} onChange={(e) => setText(e.target.value)} />
      </label>
      <p role="status" className="text-second">
        {act.sentence || sentence || (found?.more ? `The first ${rows.length}; more words narrow it.` : `${rows.length} found.`)}
      </p>
      <ul className="region min-h-0 flex-1">
        {rows.map((r) => (
          <li key={r.id} className="flex min-h-12 items-center gap-3 border-b border-rule px-1">
            <span className="w-24 shrink-0 text-second text-soft">{KIND_WORD[r.kind] ?? r.kind}</span>
            <span className="min-w-0 flex-1 truncate">{r.name}</span>
            <Button
              aria-label={`Add ${r.name}`}
              disabled={act.pending}
              onClick={() =>
                act.run(
                  () => addPartAction({ number, type: r.id, count: 1 }),
                  () => `${r.name} added.`,
                )
              }
            >
              Add
            </Button>
          </li>
        ))}
      </ul>
    </Dialog>
  );
}
