"use client";
import { useParams, usePathname, useRouter } from "next/navigation";
import type { HeadView } from "../../server/views/job-view";
import { cx } from "../../ui/cx";
import Link from "../../ui/link";
import { SeverityShape } from "../../ui/marks";
import { Day } from "../frame/dates";
import { useKeys } from "../frame/keys";
import { JobDetails } from "./job-details";

export interface StageEntry {
  slug: string;
  name: string;
  progress: string;
  stop: boolean;
}

/** The stages of a job in the order of work, Faults apart. G then a digit goes to a stage. */
export function Stages({
  head,
  stages,
  faults,
  people,
  mayRun,
  mayEnd,
}: {
  head: HeadView;
  stages: StageEntry[];
  faults: number;
  people: { id: string; name: string }[];
  mayRun: boolean;
  mayEnd: boolean;
}) {
  const path = usePathname();
  const { number } = useParams<{ number: string }>();
  const router = useRouter();
  const to = [...stages, { slug: "faults", name: "Faults" }];
  useKeys("job", [
    ...to.map((s, i) => ({ keys: [`g ${i + 1}`], word: `To ${s.name}`, run: () => router.push(`/job/${number}/${s.slug}`) })),
    { keys: [], word: "Receipt at the bench", run: () => router.push(`/job/${number}/receipt`) },
    { keys: [], word: "Hand over", run: () => router.push(`/job/${number}/handover`) },
  ]);
  const here = (slug: string) => path.endsWith(`/${slug}`);
  return (
    <nav aria-label="Stages of the job" className="flex h-15 shrink-0 items-stretch border-b border-rule max-[860px]:h-auto max-[860px]:flex-wrap">
      <div className="flex w-66 min-w-40 items-center gap-2 pl-4 pr-2 max-[860px]:min-h-13 max-[860px]:w-full">
        <div className="min-w-0 flex-1">
          <div className="truncate text-key font-[650]">
            <span className="mono">{head.number}</span> {head.title}
          </div>
          <div className="truncate text-second text-soft">
            {head.stage === "waiting" ? (
              <span className="font-semibold text-ink">
                Waits for {head.waitingFor}
                {head.waitingUntil ? (
                  <>
                    , until <Day of={head.waitingUntil} />
                  </>
                ) : null}
              </span>
            ) : (
              head.client
            )}
          </div>
        </div>
        {mayRun ? <JobDetails head={head} people={people} mayEnd={mayEnd} /> : null}
      </div>
      {stages.map((s) => (
        <Link
          key={s.slug}
          href={`/job/${number}/${s.slug}`}
          aria-current={here(s.slug) ? "page" : undefined}
          className={cx(
            "flex w-34 min-w-0 flex-col justify-center border-b-4 px-3 no-underline hover:bg-sheet max-[860px]:min-h-11 max-[860px]:w-auto max-[860px]:px-2.5",
            here(s.slug) ? "border-b-ink bg-sheet" : "border-b-transparent",
          )}
        >
          <span className="flex items-center gap-1.5 font-semibold">
            {s.name}
            {s.stop ? (
              <>
                <SeverityShape severity="stop" size={14} />
                <span className="sr-only">has a stop</span>
              </>
            ) : null}
          </span>
          <span className="truncate text-label text-soft max-[860px]:sr-only">{s.progress}</span>
        </Link>
      ))}
      <div className="flex-1 max-[860px]:hidden" />
      <Link
        href={`/job/${number}/faults`}
        aria-current={here("faults") ? "page" : undefined}
        className={cx(
          "flex w-30 min-w-0 flex-col justify-center border-b-4 border-l border-l-rule px-3 no-underline hover:bg-sheet max-[860px]:min-h-11 max-[860px]:w-auto max-[860px]:border-l-0 max-[860px]:px-2.5",
          here("faults") ? "border-b-ink bg-sheet" : "border-b-transparent",
        )}
      >
        <span className="font-semibold">Faults{faults > 0 ? <span className="min-[861px]:hidden"> {faults}</span> : null}</span>
        <span className="text-label text-soft max-[860px]:sr-only">{faults === 0 ? "none open" : `${faults} open`}</span>
      </Link>
    </nav>
  );
}
