"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import { fullName, type PartType } from "../../core/catalogue";
import { Button } from "../../ui/button";
import { mergeAction } from "../actions/shelf";
import { ask } from "../frame/ask";
import { useAct } from "../frame/use-act";
import { useFound } from "../frame/use-found";

/** A part type made out of words turns out to be one that the shelf has: the two become one. */
export function IsAnother({ type }: { type: PartType }) {
  const act = useAct();
  const router = useRouter();
  const [words, setWords] = useState("");
  const { found } = useFound(words.trim() ? (w) => ask("shelf.search", { text: w, kind: type.kind }) : undefined, words);
  const rows = (found?.rows ?? []).filter((r) => r.id !== type.id).slice(0, 6);
  return (
    <section aria-label="It is another" className="mb-5 text-second">
      <h2 className="text-key font-[650]">It is one that the shelf has</h2>
      <label>
        <span className="sr-only">Which part type it is</span>
        <input className="field w-full" placeholder="Name, maker or id" maxLength={80} value={words} onChange={(e) => setWords(e.target.value)} />
      </label>
      <ul>
        {rows.map((r) => (
          <li key={r.id} className="flex items-center gap-2 border-t border-rule py-1">
            <span className="min-w-0 flex-1">{fullName(r)}</span>
            <Button
              aria-label={`It is ${r.name}`}
              disabled={act.pending}
              onClick={() =>
                act.run(
                  async () => {
                    const done = await mergeAction({ drop: type.id, keep: r.id });
                    if (done.ok) router.push(`/shelf/${encodeURIComponent(r.id)}`);
                    return done;
                  },
                  (v) => `They are one now.${v.jobs.length > 0 ? ` ${v.jobs.join(", ")} have ${r.name}.` : ""}`,
                )
              }
            >
              It is this
            </Button>
          </li>
        ))}
      </ul>
      <p role="status">{act.sentence}</p>
    </section>
  );
}
