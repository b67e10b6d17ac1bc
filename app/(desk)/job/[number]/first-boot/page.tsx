import type { Metadata } from "next";
import { FirstBootScreen } from "../../../../../features/first-boot/first-boot-screen";
import { jobPage, soaksPage } from "../../../../../server/views/job-page";
import { bootSlice } from "../../../../../server/views/slices";

export const metadata: Metadata = { title: "First boot" };

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  const { number } = await params;
  return <FirstBootScreen view={bootSlice(await jobPage(number))} soaks={await soaksPage(number)} />;
}
