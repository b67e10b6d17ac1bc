import type { SaidPaper } from "../../paper/said";
import Link from "../../ui/link";

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
      <h1 className="text-verdict font-semibold">{paper.title}</h1>
      {paper.under.map((u) => (
        <p key={u}>{u}</p>
      ))}
      {paper.sections.map((s) => (
        <section key={s.title} className="mt-6">
          <h2 className="text-key font-[650]">{s.title}</h2>
          {s.lead ? <p>{s.lead}</p> : null}
          {s.drawing ? (
            // biome-ignore lint/performance/noImgElement: a drawing of this very moment, in the page itself
            <img src={`data:image/svg+xml;base64,${Buffer.from(svg).toString("base64")}`} alt={s.title} className="mt-2 w-full" />
          ) : null}
          {s.rows.length > 0 ? (
            <ul>
              {s.rows.map((r, i) => (
                <li key={i} className="flex gap-4 border-t border-rule py-1.5">
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
    </main>
  );
}
