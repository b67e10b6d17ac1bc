import type { Metadata } from "next";
import { BenchScreen } from "../../../../../features/bench/bench-screen";
import { technicians, whoIsIt } from "../../../../../server/kernel/who";
import { jobPage } from "../../../../../server/read/job-page";
import { benchSlice } from "../../../../../server/read/slices";

export const metadata: Metadata = { title: "Bench" };
export const dynamic = "force-dynamic";

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  const view = benchSlice(await jobPage((await params).number));
  const [who, people] = await Promise.all([whoIsIt(), technicians()]);
  return <BenchScreen view={view} who={who?.name ?? null} people={people.map(({ id, name }) => ({ id, name }))} />;
}
