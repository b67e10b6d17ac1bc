"use client";
import type { ReactNode } from "react";
import type { Had } from "../../server/views/had";
import type { FrameSlice } from "../../server/views/slices";
import { useSlice } from "../frame/slices";
import { Rail } from "./rail";
import { Stages } from "./stages";
import { StopLine } from "./stop-line";

/** What stands around every screen of a job at a desk: its stages, what stops it, findings and log beside the stage. */
export function JobFrame({
  first,
  people,
  mayEnd,
  mayRun,
  children,
}: {
  first: Had<FrameSlice>;
  people: { id: string; name: string }[];
  mayEnd: boolean;
  mayRun: boolean;
  children: ReactNode;
}) {
  const { head, progress: p, findings, setAside, log, leads } = useSlice(["job", first.data.head.number, "frame"], first, { around: true }).data;
  const stages = [
    { slug: "parts", name: "Parts", progress: p.parts, stop: p.stop.parts ?? false },
    { slug: "wiring", name: "Wiring", progress: p.wiring, stop: p.stop.wiring ?? false },
    { slug: "order", name: "Order", progress: p.order, stop: false },
    { slug: "bench", name: "Bench", progress: p.bench, stop: p.stop.bench ?? false },
    { slug: "first-boot", name: "First boot", progress: p.firstBoot, stop: p.stop.firstBoot ?? false },
    { slug: "handover", name: "Handover", progress: head.stage === "handed-over" ? "handed over" : "record so far", stop: false },
  ];
  return (
    <>
      <Stages {...{ head, stages, people, mayEnd, mayRun }} faults={p.faults} />
      <StopLine number={head.number} findings={findings} />
      <div className="flex min-h-0 flex-1 max-[700px]:flex-col-reverse max-[700px]:justify-end">
        <main className="stage flex min-h-0 min-w-0 flex-1">{children}</main>
        <Rail number={head.number} {...{ findings, setAside, log, leads }} />
      </div>
    </>
  );
}
