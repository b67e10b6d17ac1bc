import type { ReactNode } from "react";
import { Rail } from "../../../../features/job/rail";
import { Stages } from "../../../../features/job/stages";
import { StopLine } from "../../../../features/job/stop-line";
import { may } from "../../../../server/kernel/actor";
import { whoIsIt } from "../../../../server/kernel/who";
import { peopleAtBench } from "../../../../server/people/pages";
import { jobPage } from "../../../../server/views/job-page";

export default async function JobLayout({ children, params }: { children: ReactNode; params: Promise<{ number: string }> }) {
  const [v, who, people] = await Promise.all([jobPage((await params).number), whoIsIt(), peopleAtBench()]);
  const p = v.progress;
  const stages = [
    { slug: "parts", name: "Parts", progress: p.parts, stop: p.stop.parts ?? false },
    { slug: "wiring", name: "Wiring", progress: p.wiring, stop: p.stop.wiring ?? false },
    { slug: "order", name: "Order", progress: p.order, stop: false },
    { slug: "bench", name: "Bench", progress: p.bench, stop: p.stop.bench ?? false },
    { slug: "first-boot", name: "First boot", progress: p.firstBoot, stop: p.stop.firstBoot ?? false },
    { slug: "handover", name: "Handover", progress: v.head.stage === "handed-over" ? "handed over" : "record so far", stop: false },
  ];
  return (
    <>
      <Stages head={v.head} stages={stages} faults={p.faults} people={people} mayEnd={may(who, "end jobs")} mayRun={may(who, "run jobs")} />
      <StopLine number={v.head.number} findings={v.findings} />
      <div className="flex min-h-0 flex-1 max-[700px]:flex-col-reverse max-[700px]:justify-end">
        <main className="stage flex min-h-0 min-w-0 flex-1">{children}</main>
        <Rail
          number={v.head.number}
          findings={v.findings}
          setAside={v.setAside}
          log={v.log}
          leads={v.leads.map(({ address, state, port }) => ({ address, state, ...(port ? { port } : {}) }))}
        />
      </div>
    </>
  );
}
