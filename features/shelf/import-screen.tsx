"use client";
import { useRef, useState } from "react";
import type { FileRow } from "../../server/shelf/shelf-file";
import { Button } from "../../ui/button";
import { ChooseFile } from "../../ui/choose-file";
import Link from "../../ui/link";
import { takeFileAction } from "../actions/shelf";
import { ask } from "../frame/ask";
import { readTextFile } from "../frame/read-text-file";
import { useAct } from "../frame/use-act";

const WORD: Record<FileRow["what"], string> = {
  new: "new",
  corrected: "a new revision",
  stock: "stock only",
  beside: "tips or photo only",
  same: "as it is",
  "left out": "left out",
};
const ORDER: FileRow["what"][] = ["left out", "new", "corrected", "stock", "beside", "same"];
const TAKEN: FileRow["what"][] = ["new", "corrected", "stock", "beside"];

/** Part types from a CSV or JSON file: read, judged row by row, then taken over with one press. */
export function ImportScreen() {
  const act = useAct();
  const [file, setFile] = useState<{ name: string; text: string } | null>(null);
  const [rows, setRows] = useState<FileRow[] | null>(null);
  const [said, setSaid] = useState<string[]>([]);
  /** The file that was chosen last: an answer about one before it is of no interest any more. */
  const last = useRef<File | null>(null);
  const choose = async (f: File) => {
    last.current = f;
    setRows(null);
    const text = await readTextFile(f, "a list of part types");
    if (!text.ok) {
      setSaid([text.sentence]);
      return;
    }
    setSaid([]);
    const read = { name: f.name.slice(0, 200), text: text.text };
    setFile(read);
    act.run(
      async () => {
        const r = await ask("shelf.judge-file", read);
        if (r.ok && last.current === f) {
          setRows([...r.value.rows].sort((a, b) => ORDER.indexOf(a.what) - ORDER.indexOf(b.what) || a.line - b.line));
          setSaid(r.value.said);
        }
        return r;
      },
      (v) => `${v.rows.length} read, nothing stored yet.`,
    );
  };
  const take = rows?.filter((r) => TAKEN.includes(r.what)) ?? [];
  const store = () =>
    act.run(
      async () => {
        const r = await takeFileAction({ ...file, rows: take.map((t) => ({ id: t.id, seen: t.seen })) });
        if (r.ok) {
          setRows(null);
          setSaid(r.value.left);
        }
        return r;
      },
      (v) =>
        `${v.made} new, ${v.corrected} with a new revision, ${v.stock} stock only${v.beside > 0 ? `, ${v.beside} tips and photos` : ""}${v.left.length > 0 ? `; ${v.left.length} left out` : ""}.`,
    );
  const count = (what: FileRow["what"]) => rows?.filter((r) => r.what === what).length ?? 0;
  return (
    <main className="flex min-h-0 flex-1 flex-col gap-4 overflow-hidden p-6">
      <div>
        <p className="text-second">
          <Link className="underline underline-offset-4" href="/shelf">
            Shelf
          </Link>
        </p>
        <h1 className="text-action font-[650]">Part types from a file</h1>
        <p className="max-w-[75ch] text-soft">
          JSON as the shelf writes it, or CSV with a column id. A row for a part type that is not on the shelf yet names in the column like which one
          it is like: ports and leads come from there. Jobs keep the entries they were planned with.
        </p>
      </div>
      <div className="flex items-center gap-3">
        <ChooseFile word="Choose a file" accept=".csv,.json,text/csv,application/json,text/plain" onFile={(f) => void choose(f)} />
        {file && rows ? <span className="mono text-second">{file.name}</span> : null}
        <Button tone="mark" disabled={act.pending || take.length === 0} onClick={store}>
          {take.length === 0 ? "Nothing to take over" : `Take over ${take.length}`}
        </Button>
        <p role="status" className="min-w-0 flex-1 text-second">
          {act.sentence} {rows ? ORDER.flatMap((w) => (count(w) > 0 ? [`${count(w)} ${WORD[w]}`] : [])).join(", ") : ""}
        </p>
      </div>
      {said.length + act.more.length > 0 ? (
        <div role="alert" className="region max-h-40 shrink-0 text-second">
          <ul>
            {[...said, ...act.more].slice(0, 60).map((s) => (
              <li key={s}>{s}</li>
            ))}
          </ul>
        </div>
      ) : null}
      {rows ? (
        <div className="region min-h-0 flex-1">
          <table className="w-full">
            <thead className="sticky top-0 bg-ground">
              <tr className="text-left text-second text-soft">
                <th className="w-16 py-2 pr-4 text-right font-normal">Line</th>
                <th className="w-40 font-normal">What becomes of it</th>
                <th className="font-normal">Part type</th>
                <th className="font-normal">Id</th>
                <th className="font-normal">Why it is left out</th>
              </tr>
            </thead>
            <tbody>
              {rows.slice(0, 500).map((r) => (
                <tr key={r.line} className="border-t border-rule align-baseline">
                  <td className="mono py-2 pr-4 text-right text-soft">{r.line}</td>
                  <td className={r.what === "left out" ? "font-semibold text-stop" : undefined}>{WORD[r.what]}</td>
                  <td>{r.name}</td>
                  <td className="mono text-second text-soft">{r.id}</td>
                  <td className="text-second">{r.faults.join(" ")}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {rows.length > 500 ? <p className="p-3 text-second">The first 500 of {rows.length}; all are taken over.</p> : null}
        </div>
      ) : null}
    </main>
  );
}
