import type { Metadata } from "next";
import { WiringScreen } from "../../../../../features/wiring/wiring-screen";
import { jobPage } from "../../../../../server/job-page";

export const metadata: Metadata = { title: "Wiring" };

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  const { build, leads, findings, plan, head, free } = await jobPage((await params).number);
  return <WiringScreen view={{ build, leads, findings, plan, head, free }} />;
}
