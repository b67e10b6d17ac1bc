import type { SaidPaper } from "../../paper/said";
import Link from "../../ui/link";
import { PaperSections } from "./paper-sections";

const LANGUAGES = [
  ["en", "English"],
  ["de", "Deutsch"],
] as const;

/** What a client sees of their machine, on a phone first. */
export function ForClientScreen({ paper, svg, language }: { paper: SaidPaper; svg: string; language: string }) {
  return (
    <main lang={language} className="mx-auto min-h-dvh w-full max-w-[720px] px-4 py-6">
      <nav aria-label="Language" className="flex justify-end gap-4 text-second">
        {LANGUAGES.map(([l, word]) => (
          <Link
            key={l}
            href={`?in=${l}`}
            lang={l}
            aria-current={l === language ? "true" : undefined}
            className={l === language ? "font-semibold" : "underline underline-offset-4"}
          >
            {word}
          </Link>
        ))}
      </nav>
      <PaperSections
        paper={paper}
        drawn={(s) => (
          // biome-ignore lint/performance/noImgElement: a drawing of this very moment, in the page itself
          <img src={`data:image/svg+xml;base64,${Buffer.from(svg).toString("base64")}`} alt={s.title} className="mt-2 w-full" />
        )}
      />
    </main>
  );
}
