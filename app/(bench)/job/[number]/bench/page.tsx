import type { Metadata } from "next";
import { BenchScreen } from "../../../../../features/bench/bench-screen";
import { jobPage } from "../../../../../server/job-page";
import { whoIsIt } from "../../../../../server/who";

export const metadata: Metadata = { title: "Bench" };
export const dynamic = "force-dynamic";

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  const { build, steps, head, leads, power, findings } = await jobPage((await params).number);
  return <BenchScreen view={{ build, steps, head, leads, power, findings }} who={(await whoIsIt())?.name ?? null} />;
}
