"use client";
import { usePathname, useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { PART_KINDS } from "../../core/catalogue";
import type { ShelfRow } from "../../server/shelf/search";
import { Button } from "../../ui/button";
import Link from "../../ui/link";
import { stockAction } from "../actions/shelf";
import { useAct } from "../frame/use-act";
import { fullName } from "../shared/full-name";
import { KIND_WORD } from "../shared/kinds";

/** Part types and stock: found by words, narrowed by kind. */
export function ShelfScreen({ found, q, kind }: { found: { rows: ShelfRow[]; more: boolean }; q: string; kind: string }) {
  const router = useRouter();
  const path = usePathname();
  const [text, setText] = useState(q);
  const act = useAct();
  useEffect(() => {
    if (text === q) return;
    const timer = setTimeout(() => router.replace(address(path, text, kind)), 150);
    return () => clearTimeout(timer);
  }, [text, q, kind, path, router]);
  return (
    <main className="stage flex min-h-0 flex-1">
      <div className="cols">
        <nav aria-label="Kinds" className="region w-52 shrink-0 border-r border-rule py-4">
          <ul>
            {["", ...PART_KINDS].map((k) => (
              <li key={k}>
                <Link
                  href={address(path, text, k)}
                  aria-current={k === kind ? "page" : undefined}
                  data-chosen={k === kind}
                  className="bar-left flex min-h-9 items-center px-4 no-underline hover:bg-sheet"
                >
                  {k === "" ? "All kinds" : (KIND_WORD[k] ?? k)}
                </Link>
              </li>
            ))}
          </ul>
        </nav>
        <section aria-label="Part types" className="flex min-w-0 flex-1 flex-col">
          <div className="flex min-h-16 shrink-0 flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule px-5">
            <h1 className="text-action font-[650]">Shelf</h1>
            <label className="min-w-0 max-w-md flex-1">
              <span className="sr-only">Find a part type</span>
              <input className="field w-full" placeholder="Name, maker or id" value={text} maxLength={80} onChange={(e) => setText(e.target.value)} />
            </label>
            <p role="status" className="min-w-0 flex-1 text-second">
              {act.sentence || (found.more ? `The first ${found.rows.length}, by name; more words narrow it.` : `${found.rows.length} part types.`)}
            </p>
          </div>
          <div className="flex shrink-0 flex-wrap items-center gap-2 border-b border-rule px-5 py-2 text-second">
            <span className="text-soft">These part types as a file:</span>
            {(["csv", "json"] as const).map((as) => (
              <a key={as} className="key no-underline" href={address("/files/shelf", text, kind, as)} download={`shelf.${as}`}>
                {as.toUpperCase()}
              </a>
            ))}
            <Link className="key no-underline" href="/shelf/import">
              Take part types from a file
            </Link>
          </div>
          {found.rows.length === 0 ? (
            <p className="p-5">
              {q === "" && kind === ""
                ? "The shelf is empty. Take part types from a file; docs/formats.md says what stands in one, and data/shelf holds some."
                : "Nothing on the shelf has these words. Open a similar part type and save it under a new id."}
            </p>
          ) : null}
          <div className="region min-h-0 flex-1">
            <table className="w-full">
              <thead className="sticky top-0 bg-ground">
                <tr className="text-left text-second text-soft">
                  <th className="px-5 py-2 font-normal">Part type</th>
                  <th className="font-normal">Kind</th>
                  <th className="font-normal">Id</th>
                  <th className="text-right font-normal">Revision</th>
                  <th className="w-40 text-right font-normal">In stock</th>
                  <th className="w-44 px-5 text-right font-normal">Known-good spares</th>
                </tr>
              </thead>
              <tbody>
                {found.rows.map((r) => (
                  <tr key={r.id} className="border-t border-rule">
                    <th scope="row" className="h-12 px-5 text-left font-normal">
                      <Link className="underline-offset-4 hover:underline" href={`/shelf/${encodeURIComponent(r.id)}`}>
                        {fullName(r)}
                      </Link>
                    </th>
                    <td>{KIND_WORD[r.kind] ?? r.kind}</td>
                    <td className="mono text-second text-soft">{r.id}</td>
                    <td className="mono text-right">{r.revision}</td>
                    <td className="text-right">
                      <Count row={r} what="stock" act={act} />
                    </td>
                    <td className="px-5 text-right">
                      <Count row={r} what="spares" act={act} />
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        </section>
      </div>
    </main>
  );
}

const address = (path: string, q: string, kind: string, as?: string) => {
  const p = new URLSearchParams();
  if (q) p.set("q", q);
  if (kind) p.set("kind", kind);
  if (as) p.set("as", as);
  return p.size > 0 ? `${path}?${p}` : path;
};

const COUNT = { stock: "in stock", spares: "kept as known-good spares" } as const;

function Count({ row, what, act }: { row: ShelfRow; what: keyof typeof COUNT; act: ReturnType<typeof useAct> }) {
  const n = row[what];
  const change = (to: number) =>
    act.run(
      () => stockAction({ type: row.id, [what]: to, saw: { [what]: n } }),
      () => `${row.name}: ${to} ${COUNT[what]}.`,
    );
  const of = what === "spares" ? "spare " : "";
  return (
    <span className="inline-flex items-center gap-2">
      <Button className="min-w-8 px-2" aria-label={`One ${of}${row.name} fewer`} disabled={act.pending || n === 0} onClick={() => change(n - 1)}>
        -
      </Button>
      <span className="mono w-8 text-right">{n}</span>
      <Button className="min-w-8 px-2" aria-label={`One ${of}${row.name} more`} disabled={act.pending} onClick={() => change(n + 1)}>
        +
      </Button>
    </span>
  );
}
