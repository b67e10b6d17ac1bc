"use client";
import { useState } from "react";
import { Button } from "../../ui/button";
import { ChooseFile } from "../../ui/choose-file";
import { Dialog } from "../../ui/dialog";
import { takeConnectionsAction } from "../actions/wiring";
import { readTextFile } from "../frame/read-text-file";
import { useAct } from "../frame/use-act";

const FILES = [
  [
    "wiring.pdf",
    "Wiring sheet, PDF",
    "the machine from both sides of its tray, every plug in its order, what stays free and why, what stays in the bag",
  ],
  ["wiring.csv", "Connection list, CSV", "one row a plug; it can be read back to fix connections"],
  ["wiring.svg", "Front of the tray, SVG", "to scale, in millimetres, black on white"],
  ["wiring-behind.svg", "Behind the tray, SVG", "the same from behind, mirrored"],
  ["wiring.json", "The build with its plan, JSON", "what the command line reads"],
] as const;

/** The wiring out as files, and a connection list in again. */
export function WiringFiles({ number }: { number: string }) {
  const act = useAct();
  const [left, setLeft] = useState<string[]>([]);
  const take = async (f: File) => {
    const text = await readTextFile(f, "a connection list");
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
    <Dialog title={`The wiring of ${number} as files`} className="w-[720px]" trigger={<Button className="shrink-0 px-1.5 text-second">Files</Button>}>
      <ul>
        {FILES.map(([file, word, what]) => (
          <li key={file} className="flex items-center gap-4 border-t border-rule py-2">
            <a className="key w-64 shrink-0 no-underline" download href={`/files/job/${number}/${file}`}>
              {word}
            </a>
            <span className="text-second text-soft">{what}</span>
          </li>
        ))}
      </ul>
      <div className="flex items-center gap-4 border-t border-rule pt-3">
        <ChooseFile className="w-64 shrink-0" word="Read a connection list" accept=".csv,text/csv,text/plain" onFile={(f) => void take(f)} />
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
    </Dialog>
  );
}
