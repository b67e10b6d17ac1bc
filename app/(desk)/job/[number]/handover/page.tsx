import type { Metadata } from "next";
import { HandoverScreen } from "../../../../../features/handover/handover-screen";
import { jobPage, leftOverPage } from "../../../../../server/views/job-page";
import { handoverSlice } from "../../../../../server/views/slices";

export const metadata: Metadata = { title: "Handover" };

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  const { number } = await params;
  return <HandoverScreen view={handoverSlice(await jobPage(number))} leftOver={await leftOverPage(number)} />;
}
