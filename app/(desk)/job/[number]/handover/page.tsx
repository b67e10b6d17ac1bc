import type { Metadata } from "next";
import { HandoverScreen } from "../../../../../features/handover/handover-screen";
import { jobPage } from "../../../../../server/views/job-page";
import { handoverSlice } from "../../../../../server/views/slices";

export const metadata: Metadata = { title: "Handover" };

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  return <HandoverScreen view={handoverSlice(await jobPage((await params).number))} />;
}
