"use client";
import { usePathname, useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { fullName, PART_KINDS } from "../../core/catalogue";
import type { ShelfOrder, ShelfRow } from "../../server/shelf/search";
import { Button } from "../../ui/button";
import Link from "../../ui/link";
import { stockAction } from "../actions/shelf";
import { useAct } from "../frame/use-act";
import { KIND_WORD } from "../shared/kinds";

interface Asked {
  q: string;
  kind: string;
  sort: ShelfOrder;
  page: number;
  provisional: boolean;
}
const PAGE = 60;

const address = (path: string, a: Partial<Asked>, as?: string) => {
  const p = new URLSearchParams();
  if (a.q) p.set("q", a.q);
  if (a.kind) p.set("kind", a.kind);
  if (a.provisional) p.set("only", "provisional");
  if (a.sort && a.sort !== (a.provisional ? "jobs" : "name")) p.set("sort", a.sort);
  if (a.page) p.set("page", String(a.page + 1));
  if (as) p.set("as", as);
  return p.size > 0 ? `${path}?${p}` : path;
};

/** Part types and stock: found by words, narrowed by kind, sorted and leafed through; a new one is begun here. */
export function ShelfScreen({ found, asked }: { found: { rows: ShelfRow[]; more: boolean; total: number }; asked: Asked }) {
  const router = useRouter();
  const path = usePathname();
  const { q, kind, page, provisional } = asked;
  const [text, setText] = useState(q);
  const act = useAct();
  useEffect(() => {
    if (text === q) return;
    const timer = setTimeout(() => router.replace(address(path, { ...asked, q: text, page: 0 })), 150);
    return () => clearTimeout(timer);
  }, [text, q, asked, path, router]);
  const first = page * PAGE + 1;
  const sorted = (by: ShelfOrder, word: string, className: string) => (
    <th className={className} aria-sort={asked.sort === by ? (by === "stock" || by === "jobs" ? "descending" : "ascending") : undefined}>
      <Link
        href={address(path, { ...asked, q: text, sort: by, page: 0 })}
        className={asked.sort === by ? "font-semibold text-ink no-underline" : "underline underline-offset-4"}
      >
        {word}
      </Link>
    </th>
  );
  return (
    <main className="stage flex min-h-0 flex-1">
      <div className="cols">
        <nav aria-label="Kinds" className="region w-52 shrink-0 border-r border-rule py-4">
          <ul>
            {["", ...PART_KINDS].map((k) => (
              <li key={k}>
                <Link
                  href={address(path, { ...asked, q: text, kind: k, page: 0 })}
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
              {act.sentence ||
                (found.total > PAGE
                  ? `${first} to ${first + found.rows.length - 1} of ${found.total} part types.`
                  : `${found.total} ${found.total === 1 ? "part type" : "part types"}.`)}
            </p>
            <Link className="key no-underline" href={`/shelf/new${kind ? `?kind=${kind}` : ""}`}>
              New part type
            </Link>
          </div>
          <div className="flex shrink-0 flex-wrap items-center gap-2 border-b border-rule px-5 py-2 text-second">
            <Link
              className="key no-underline"
              aria-current={provisional ? "true" : undefined}
              href={address(path, { q: text, kind, provisional: !provisional })}
            >
              {provisional ? "All part types" : "Only what is partly assumed"}
            </Link>
            <span className="flex-1" />
            <span className="text-soft">As a file:</span>
            {(["csv", "json"] as const).map((as) => (
              <a key={as} className="key no-underline" href={address("/files/shelf", { q: text, kind }, as)} download={`shelf.${as}`}>
                {as.toUpperCase()}
              </a>
            ))}
            <Link className="key no-underline" href="/shelf/import">
              Take part types from a file
            </Link>
          </div>
          {found.rows.length === 0 ? (
            <p className="p-5">
              {provisional
                ? "Nothing on the shelf is only assumed."
                : q === "" && kind === ""
                  ? "The shelf is empty. Count a part type, or take some from a file: the demo's stand in data/shelf."
                  : page > 0
                    ? "There is no such page."
                    : "Nothing on the shelf has these words. Count it as a new part type."}
            </p>
          ) : null}
          <div className="region min-h-0 flex-1">
            <table className="w-full">
              <thead className="sticky top-0 z-10 bg-ground">
                <tr className="text-left text-second text-soft">
                  {sorted("name", "Part type", "px-5 py-2 font-normal")}
                  {sorted("kind", "Kind", "font-normal")}
                  <th className="font-normal">Id</th>
                  {sorted("jobs", "Jobs", "w-16 text-right font-normal")}
                  {sorted("stock", "In stock", "w-40 text-right font-normal")}
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
                      {r.provisional ? <span className="block text-second text-soft">partly assumed</span> : null}
                    </th>
                    <td>{KIND_WORD[r.kind] ?? r.kind}</td>
                    <td className="mono text-second text-soft">{r.id}</td>
                    <td className="mono text-right">{r.jobs > 0 ? r.jobs : ""}</td>
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
            {found.total > PAGE ? (
              <nav aria-label="Pages of the shelf" className="flex items-center gap-3 border-t border-rule px-5 py-3">
                {page > 0 ? (
                  <Link className="key no-underline" href={address(path, { ...asked, page: page - 1 })}>
                    Before
                  </Link>
                ) : null}
                <span className="text-second text-soft">
                  Page {page + 1} of {Math.ceil(found.total / PAGE)}
                </span>
                {found.more ? (
                  <Link className="key no-underline" href={address(path, { ...asked, page: page + 1 })}>
                    Next
                  </Link>
                ) : null}
              </nav>
            ) : null}
          </div>
        </section>
      </div>
    </main>
  );
}

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
