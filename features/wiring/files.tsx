"use client";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { decode, tooLarge } from "../../core/table";
import { useAct } from "../frame/use-act";
import { takeConnectionsAction } from "../job/actions";

const WHAT = "a connection list";
const FILES = [
  ["pdf", "Wiring sheet, PDF", "board plan, every plug in its order, what stays free and why, what stays in the bag"],
  ["csv", "Connection list, CSV", "one row a plug; it can be read back to fix connections"],
  ["svg", "Board plan, SVG", "to scale, in millimetres, black on white"],
  ["json", "The build with its plan, JSON", "what the command line reads"],
] as const;

/** The wiring out as files, and a connection list in again. */
export function WiringFiles({ number }: { number: string }) {
  const act = useAct();
  const [left, setLeft] = useState<string[]>([]);
  const take = async (f: File | undefined) => {
    if (!f) return;
    const large = tooLarge(f.size, WHAT);
    const text = large ? { ok: false as const, sentence: large } : decode(new Uint8Array(await f.arrayBuffer()), WHAT);
    if (!text.ok) {
      setLeft([text.sentence]);
      return;
    }
    act.run(
      async () => {
        const r = await takeConnectionsAction({ number, text: text.text });
        setLeft(r.ok ? r.value.left : []);
        return r;
      },
      (v) => `${v.fixed} fixed, ${v.same} were so already, ${v.left.length} left out.`,
    );
  };
  return (
    <Dialog.Root>
      <Dialog.Trigger className="key shrink-0 px-1.5 text-second">Files</Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ground/80" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-1/2 z-40 flex max-h-[86vh] w-[720px] max-w-[96vw] -translate-x-1/2 -translate-y-1/2 flex-col gap-4 rounded border-2 border-ink bg-raised p-5"
        >
          <div className="flex items-center gap-3">
            <Dialog.Title className="flex-1 text-action font-[650]">The wiring of {number} as files</Dialog.Title>
            <Dialog.Close className="key">Close</Dialog.Close>
          </div>
          <ul>
            {FILES.map(([as, word, what]) => (
              <li key={as} className="flex items-center gap-4 border-t border-rule py-2">
                <a className="key w-64 shrink-0 no-underline" download href={`/files/job/${number}/wiring.${as}`}>
                  {word}
                </a>
                <span className="text-second text-soft">{what}</span>
              </li>
            ))}
          </ul>
          <div className="flex items-center gap-4 border-t border-rule pt-3">
            <label className="key w-64 shrink-0 cursor-pointer focus-within:outline-3 focus-within:outline-offset-2 focus-within:outline-ink">
              Read a connection list
              <input
                type="file"
                accept=".csv,text/csv,text/plain"
                className="sr-only"
                onChange={(e) => {
                  void take(e.target.files?.[0]);
                  e.target.value = "";
                }}
              />
            </label>
            <p role="status" className="text-second">
              {act.sentence || "Its rows become fixed connections; plan again and the rest follows. What is plugged stays."}
            </p>
          </div>
          {left.length > 0 ? (
            <div role="alert" className="region min-h-0 flex-1 text-second">
              <ul>
                {left.map((l) => (
                  <li key={l} className="border-t border-rule py-1">
                    {l}
                  </li>
                ))}
              </ul>
            </div>
          ) : null}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
