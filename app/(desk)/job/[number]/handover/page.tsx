import type { Metadata } from "next";
import { HandoverScreen } from "../../../../../features/handover/handover-screen";
import { jobPage } from "../../../../../server/read/job-page";

export const metadata: Metadata = { title: "Handover" };

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  const { build, leads, free, power, seen, plan, head, faults, setAside, tied, open } = await jobPage((await params).number);
  return <HandoverScreen view={{ build, leads, free, power, seen, plan, head, faults, setAside, tied, open }} />;
}
