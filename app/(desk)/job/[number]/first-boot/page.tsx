import type { Metadata } from "next";
import { FirstBootScreen } from "../../../../../features/first-boot/first-boot-screen";
import { jobPage } from "../../../../../server/read/job-page";

export const metadata: Metadata = { title: "First boot" };

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  const { power, seen, head, build, progress } = await jobPage((await params).number);
  return <FirstBootScreen view={{ power, seen, head, build, progress }} />;
}
