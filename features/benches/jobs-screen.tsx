import type { JobsPage } from "../../server/views/benches";
import { Button } from "../../ui/button";
import Link from "../../ui/link";
import { STAGE_WORD, stageSlug } from "../shared/stage-slug";

const href = (text: string, stage: string, page: number) =>
  `/jobs?${new URLSearchParams({ ...(text ? { q: text } : {}), ...(stage ? { stage } : {}), ...(page > 1 ? { page: String(page) } : {}) })}`;

/** All jobs, the newest first. */
export function JobsScreen({ list, text, stage }: { list: JobsPage; text: string; stage: string }) {
  return (
    <main className="region min-h-0 flex-1 px-6 py-4">
      <h1 className="text-verdict font-semibold">All jobs</h1>
      <form className="my-3 flex flex-wrap items-end gap-3" action="/jobs">
        <label>
          Number, client or title
          <input className="field mt-1 block w-80" name="q" defaultValue={text} maxLength={80} />
        </label>
        <label>
          Stage
          <select className="field mt-1 block" name="stage" defaultValue={stage}>
            <option value="">any</option>
            {Object.entries(STAGE_WORD).map(([id, word]) => (
              <option key={id} value={id}>
                {word}
              </option>
            ))}
          </select>
        </label>
        <Button type="submit">Show</Button>
      </form>
      {list.jobs.length === 0 ? <p>No such job.</p> : null}
      <ul>
        {list.jobs.map((j) => (
          <li key={j.number} className="flex min-h-12 items-center gap-4 border-t border-rule py-1">
            <Link className="mono w-24 shrink-0 font-semibold underline underline-offset-2" href={`/job/${j.number}/${stageSlug(j.stage)}`}>
              {j.number}
            </Link>
            <span className="w-72 shrink-0 truncate">{j.title}</span>
            <span className="w-56 shrink-0 truncate text-soft">{j.client}</span>
            <span className="w-28 shrink-0">{STAGE_WORD[j.stage]}</span>
            <span className="min-w-0 flex-1 truncate text-second">{j.next}</span>
          </li>
        ))}
      </ul>
      <nav aria-label="Pages" className="mt-4 flex gap-3">
        {list.page > 1 ? (
          <Link className="key no-underline" href={href(text, stage, list.page - 1)}>
            Newer
          </Link>
        ) : null}
        {list.more ? (
          <Link className="key no-underline" href={href(text, stage, list.page + 1)}>
            Older
          </Link>
        ) : null}
      </nav>
    </main>
  );
}
