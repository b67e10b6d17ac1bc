"use client";
import { useMemo } from "react";
import { type Build, buildGraph, typeLookup } from "../../core/assembly";
import type { SaidPaper } from "../../paper/said";
import { cx } from "../../ui/cx";
import Link from "../../ui/link";
import { MachineView } from "../drawing/machine-view";
import { PAPER_NAMES } from "./paper-names";
import { PaperSections } from "./paper-sections";

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
        <PaperSections
          paper={paper}
          drawn={(s) =>
            s.plain ? (
              // biome-ignore lint/performance/noImgElement: a drawing of this very moment, from the server
              <img
                src={`/files/job/${encodeURIComponent(number)}/client${language === "en" ? "" : `-${language}`}.svg`}
                alt={s.title}
                className="mt-2 w-full"
              />
            ) : (
              <MachineView built graph={graph} most={DRAWN_PX} sheet={s.drawing ?? "front"} label={s.title} />
            )
          }
        />
      </article>
    </section>
  );
}
