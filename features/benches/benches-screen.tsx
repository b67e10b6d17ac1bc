"use client";
import type { BenchJob } from "../../server/views/benches";
import type { BenchesData } from "../../server/views/data";
import type { Had } from "../../server/views/had";
import { cx } from "../../ui/cx";
import Link from "../../ui/link";
import { SeverityShape, StateShape } from "../../ui/marks";
import { Day } from "../frame/dates";
import { useSlice } from "../frame/slices";
import { STAGE_WORD, stageSlug } from "../shared/stage-slug";
import { NewJob } from "./new-job";
import { daysTo, dueWord, verdictOf } from "./verdict";

const hoursWord = (minutes: number) => (minutes >= 90 ? `${Math.round(minutes / 30) / 2} hours` : `${minutes} minutes`);

/** Rows of a list beside the lanes; the rest is a press away. */
const MOST_DUE = 12;

export function BenchesScreen({ first }: { first: Had<BenchesData> }) {
  const { jobs, more, handedOver, today } = useSlice(["benches"], first).data;
  // Four benches, and any other that a job stands on.
  const numbers = [...new Set([1, 2, 3, 4, ...jobs.flatMap((j) => j.bench ?? [])])].sort((a, b) => a - b);
  const lanes = numbers.map((bench) => ({ bench, jobs: jobs.filter((j) => j.bench === bench) }));
  const off = jobs.filter((j) => j.bench === null && j.stage !== "waiting");
  const due = jobs.filter((j) => j.dueOn).sort((a, b) => ((a.dueOn ?? "") < (b.dueOn ?? "") ? -1 : 1));
  return (
    <main className="stage flex min-h-0 flex-1 flex-col">
      <div className="flex min-h-23 shrink-0 items-center gap-6 px-6 @max-[660px]/stage:flex-wrap @max-[660px]/stage:gap-3 @max-[660px]/stage:px-4 @max-[660px]/stage:py-4">
        <h1 className="flex-1 text-verdict font-semibold @max-[660px]/stage:w-full @max-[660px]/stage:flex-none @max-[660px]/stage:text-action">
          {verdictOf(jobs, today)}
        </h1>
        <Link className="key no-underline" href="/intake">
          New job
        </Link>
        <NewJob />
      </div>
      <div className="cols">
        <section aria-label="Benches" className="region flex min-w-0 flex-[880] flex-col border-t border-rule">
          {lanes.map((lane) => (
            <div key={lane.bench} className="flex min-h-37 border-b border-rule">
              <h2 className="w-28 shrink-0 px-6 py-4 text-key font-[650] @max-[660px]/stage:w-20 @max-[660px]/stage:px-3">Bench {lane.bench}</h2>
              <div className="flex min-w-0 flex-1 flex-col justify-center py-2 pr-4">
                {lane.jobs.length === 0 ? (
                  <p className="text-soft">Free.{off.length > 0 ? " Put a job on it: the pencil beside the job's name." : ""}</p>
                ) : (
                  lane.jobs.map((j) => <LaneJob key={j.number} job={j} today={today} compact={lane.jobs.length > 1} />)
                )}
              </div>
            </div>
          ))}
        </section>
        <section aria-label="Waiting and due" className="region w-100 shrink-0 @max-[1040px]/stage:w-72 border-l border-t border-rule px-6 py-4">
          <h2 className="mb-2 text-key font-[650]">Waiting</h2>
          <ul className="mb-6 flex flex-col gap-3">
            {jobs
              .filter((j) => j.stage === "waiting")
              .map((j) => (
                <li key={j.number} className="flex gap-2">
                  <span className="pt-1">
                    <StateShape state="waiting" />
                  </span>
                  <div>
                    <Job job={j} /> for {j.waitingFor}
                    {j.waitingUntil ? (
                      <>
                        , until <Day of={j.waitingUntil} /> ({dueWord(daysTo(today, j.waitingUntil))})
                      </>
                    ) : null}
                    .
                  </div>
                </li>
              ))}
            {jobs.some((j) => j.stage === "waiting") ? null : <li className="text-soft">Nothing waits.</li>}
          </ul>
          <h2 className="mb-2 text-key font-[650]">Due</h2>
          <ul className="mb-6 flex flex-col gap-1">
            {due.slice(0, MOST_DUE).map((j) => (
              <li key={j.number} className="flex min-h-8 items-baseline gap-3">
                <span className="w-24 shrink-0 font-semibold">{dueWord(daysTo(today, j.dueOn))}</span>
                <span className="min-w-0 flex-1 truncate">
                  <Job job={j} /> {j.title}
                </span>
              </li>
            ))}
            {due.length === 0 ? <li className="text-soft">Nothing is due.</li> : null}
          </ul>
          <h2 className="mb-2 text-key font-[650]">Not on a bench</h2>
          <ul className="mb-6 flex flex-col gap-1">
            {off.slice(0, MOST_DUE).map((j) => (
              <li key={j.number} className="flex min-h-8 items-baseline gap-3">
                <span className="min-w-0 flex-1 truncate">
                  <Job job={j} /> {j.title}
                </span>
                <span className="text-second text-soft">{STAGE_WORD[j.stage]}</span>
              </li>
            ))}
            {off.length === 0 ? <li className="text-soft">None.</li> : null}
          </ul>
          <h2 className="mb-2 text-key font-[650]">Handed over last</h2>
          <ul className="mb-6 flex flex-col gap-1">
            {handedOver.map((j) => (
              <li key={j.number} className="min-h-8 truncate">
                <Link className="mono font-semibold underline underline-offset-2" href={`/job/${j.number}/handover`}>
                  {j.number}
                </Link>{" "}
                {j.title}
              </li>
            ))}
            {handedOver.length === 0 ? <li className="text-soft">None yet.</li> : null}
          </ul>
          <Link className="key no-underline" href="/jobs">
            {more > 0 || off.length > MOST_DUE || due.length > MOST_DUE ? `All jobs, ${more + jobs.length} of them open` : "All jobs"}
          </Link>
        </section>
      </div>
    </main>
  );
}

function Job({ job }: { job: BenchJob }) {
  return (
    <Link className="mono font-semibold underline underline-offset-2" href={`/job/${job.number}/${stageSlug(job.stage)}`}>
      {job.number}
    </Link>
  );
}

function LaneJob({ job, today, compact }: { job: BenchJob; today: string; compact: boolean }) {
  const share = Math.round(job.share * 100);
  return (
    <article className={cx("flex items-center gap-4 py-1.5")}>
      <div className="min-w-0 flex-1">
        <div className="flex flex-wrap items-baseline gap-x-2">
          <Job job={job} />
          <span className="font-semibold">{job.title}</span>
          <span className="truncate text-second text-soft">{job.client}</span>
        </div>
        <Link
          href={`/job/${job.number}/${job.openFaults > 0 ? "faults" : job.stage === "bench" ? "bench" : stageSlug(job.stage)}`}
          className={cx("block no-underline hover:underline", compact ? "truncate text-body" : "line-clamp-2 text-action font-[650]")}
        >
          {job.next}
        </Link>
        <div className="flex flex-wrap items-center gap-x-4 text-second text-soft">
          <span>{job.technician ?? "nobody yet"}</span>
          <span>{STAGE_WORD[job.stage]}</span>
          <span>due {dueWord(daysTo(today, job.dueOn))}</span>
          <span className="flex items-center gap-2">
            <span aria-hidden className="inline-block h-1.5 w-24 border border-edge">
              <span className="block h-full bg-ink" style={{ width: `${share}%` }} />
            </span>
            {share} % of the steps{job.minutes > 0 ? `, about ${hoursWord(job.minutes)} left` : ""}
          </span>
          {job.stops > 0 ? (
            <span className="flex items-center gap-1 text-stop">
              <SeverityShape severity="stop" size={14} />
              {job.stops} {job.stops === 1 ? "stop" : "stops"}
            </span>
          ) : null}
          {job.openFaults > 0 ? (
            <span className="flex items-center gap-1 text-warn">
              <SeverityShape severity="warn" size={14} />
              {job.openFaults} {job.openFaults === 1 ? "fault" : "faults"} open
            </span>
          ) : null}
        </div>
      </div>
    </article>
  );
}
