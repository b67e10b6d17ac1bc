import type { Metadata } from "next";
import { entityManager } from "../../../../../db";
import { WiringScreen } from "../../../../../features/wiring/wiring-screen";
import { isPlanning } from "../../../../../server/planner/runs";
import { jobPage } from "../../../../../server/read/job-page";

export const metadata: Metadata = { title: "Wiring" };

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  const { build, leads, findings, plan, head, free } = await jobPage((await params).number);
  return <WiringScreen view={{ build, leads, findings, plan, head, free }} isRunning={await isPlanning(await entityManager(), head.number)} />;
}
