import type { Metadata } from "next";
import { BenchScreen } from "../../../../../features/bench/bench-screen";
import { seatHere } from "../../../../../server/kernel/who";
import { peopleAtBench } from "../../../../../server/people/pages";
import { jobData } from "../../../../../server/views/job-page";

export const metadata: Metadata = { title: "Bench" };
export const dynamic = "force-dynamic";

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  const first = await jobData((await params).number, "bench");
  const [seat, people] = await Promise.all([seatHere(), peopleAtBench()]);
  const worker = seat ? { id: seat.actor.id, name: seat.actor.name } : null;
  return <BenchScreen first={first} seat={{ worker, asOfMs: Date.now(), lockMinutes: seat?.lockMinutes ?? 0 }} people={people} />;
}
