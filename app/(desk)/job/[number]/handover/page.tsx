import type { Metadata } from "next";
import { HandoverScreen } from "../../../../../features/handover/handover-screen";
import { may } from "../../../../../server/kernel/actor";
import { whoIsIt } from "../../../../../server/kernel/who";
import { clientPagePath, jobPage, readyPage } from "../../../../../server/views/job-page";
import { handoverSlice } from "../../../../../server/views/slices";

export const metadata: Metadata = { title: "Handover" };

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  const { number } = await params;
  const lead = may(await whoIsIt(), "end jobs");
  return (
    <HandoverScreen view={handoverSlice(await jobPage(number))} ready={await readyPage(number)} lead={lead} page={await clientPagePath(number)} />
  );
}
