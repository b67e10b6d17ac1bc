"use client";
import { useMemo } from "react";
import { type Build, buildGraph, typeLookup } from "../../core/assembly";
import type { SaidPaper } from "../../paper/said";
import { cx } from "../../ui/cx";
import Link from "../../ui/link";
import { MachineView } from "../drawing/machine-view";
import { PAPER_NAMES } from "./paper-names";

const LANGUAGE_NAMES = { en: "English", de: "Deutsch" } as const;
const DRAWN_PX = { w: 760, h: 560 };

/** A paper as it will be printed, made from the record at this moment. */
export function PaperScreen({
  number,
  kind,
  language,
  paper,
  build,
}: {
  number: string;
  kind: keyof typeof PAPER_NAMES;
  language: keyof typeof LANGUAGE_NAMES;
  paper: SaidPaper;
  build: Build;
}) {
  const graph = useMemo(() => buildGraph(build, typeLookup(build, [])), [build]);
  const to = (k: string, l: string) => `/job/${encodeURIComponent(number)}/paper?kind=${k}&in=${l}`;
  const chip = (href: string, word: string, is: boolean, lang?: string) => (
    <Link
      key={href}
      href={href}
      lang={lang}
      aria-current={is ? "page" : undefined}
      className={cx("key no-underline", is && "border-2 font-semibold")}
    >
      {word}
    </Link>
  );
  return (
    <section aria-label="Paper" tabIndex={0} className="region min-w-0 flex-1 px-6 py-4">
      <div className="flex flex-wrap items-center gap-2">
        {(Object.keys(PAPER_NAMES) as (keyof typeof PAPER_NAMES)[]).map((k) => chip(to(k, language), PAPER_NAMES[k], k === kind))}
        <span className="flex-1" />
        {(Object.keys(LANGUAGE_NAMES) as (keyof typeof LANGUAGE_NAMES)[]).map((l) => chip(to(kind, l), LANGUAGE_NAMES[l], l === language, l))}
        <a
          className="key no-underline"
          href={`/files/job/${encodeURIComponent(number)}/${kind}${language === "en" ? "" : `-${language}`}.pdf`}
          download
        >
          PDF
        </a>
      </div>
      <article lang={language} className="mx-auto mt-4 max-w-[860px] border border-rule bg-sheet px-10 py-8">
        <h1 className="text-verdict font-semibold">{paper.title}</h1>
        {paper.under.map((u) => (
          <p key={u}>{u}</p>
        ))}
        {paper.sections.map((s) => (
          <section key={s.title} className="mt-6">
            <h2 className="text-key font-[650]">{s.title}</h2>
            {s.lead ? <p>{s.lead}</p> : null}
            {s.plain ? (
              // biome-ignore lint/performance/noImgElement: a drawing of this very moment, from the server
              <img
                src={`/files/job/${encodeURIComponent(number)}/client${language === "en" ? "" : `-${language}`}.svg`}
                alt={s.title}
                className="mt-2 w-full"
              />
            ) : s.drawing ? (
              <MachineView built graph={graph} most={DRAWN_PX} sheet={s.drawing} label={s.title} />
            ) : null}
            {s.rows.length > 0 ? (
              <ul>
                {s.rows.map((r, i) => (
                  <li key={i} className="flex gap-4 border-t border-rule py-1">
                    <span className="min-w-0 flex-1 [overflow-wrap:anywhere]">
                      {r.what}
                      {r.says ? <span className="block text-second text-soft">{r.says}</span> : null}
                    </span>
                    {r.right ? <span className="max-w-[40%] text-right text-second [overflow-wrap:anywhere]">{r.right}</span> : null}
                  </li>
                ))}
              </ul>
            ) : null}
          </section>
        ))}
      </article>
    </section>
  );
}
