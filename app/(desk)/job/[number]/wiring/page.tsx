import type { Metadata } from "next";
import { after } from "next/server";
import { WiringScreen } from "../../../../../features/wiring/wiring-screen";
import { jobPage } from "../../../../../server/job-page";
import { planAhead } from "../../../../../server/plan-thread";

export const metadata: Metadata = { title: "Wiring" };

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  const { build, leads, findings, plan, head, free } = await jobPage((await params).number);
  if (!plan || plan.stale) after(() => planAhead(build));
  return <WiringScreen view={{ build, leads, findings, plan, head, free }} />;
}
