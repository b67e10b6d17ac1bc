import type { Metadata } from "next";
import { BenchScreen } from "../../../../../features/bench/bench-screen";
import { seatHere } from "../../../../../server/kernel/who";
import { peopleAtBench } from "../../../../../server/people/pages";
import { jobPage } from "../../../../../server/views/job-page";
import { benchSlice } from "../../../../../server/views/slices";

export const metadata: Metadata = { title: "Bench" };
export const dynamic = "force-dynamic";

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  const view = benchSlice(await jobPage((await params).number));
  const [seat, people] = await Promise.all([seatHere(), peopleAtBench()]);
  const worker = seat ? { id: seat.actor.id, name: seat.actor.name } : null;
  return <BenchScreen view={view} seat={{ worker, asOfMs: Date.now(), lockMinutes: seat?.lockMinutes ?? 0 }} people={people} />;
}
