import type { ReactNode } from "react";
import type { SaidPaper } from "../../paper/said";

/** A paper as it is read on a screen; `drawn` is the machine where a section shows it. */
export function PaperSections({ paper, drawn }: { paper: SaidPaper; drawn: (s: SaidPaper["sections"][number]) => ReactNode }) {
  return (
    <>
      <h1 className="text-verdict font-semibold">{paper.title}</h1>
      {paper.under.map((u) => (
        <p key={u}>{u}</p>
      ))}
      {paper.sections.map((s) => (
        <section key={s.title} className="mt-6">
          <h2 className="text-key font-[650]">{s.title}</h2>
          {s.lead ? <p>{s.lead}</p> : null}
          {s.drawing ? drawn(s) : null}
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
    </>
  );
}
