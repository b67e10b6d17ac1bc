import type { Metadata } from "next";
import { WiringScreen } from "../../../../../features/wiring/wiring-screen";
import { isPlanning, jobPage } from "../../../../../server/views/job-page";
import { wiringSlice } from "../../../../../server/views/slices";

export const metadata: Metadata = { title: "Wiring" };

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  const view = wiringSlice(await jobPage((await params).number));
  return <WiringScreen view={view} isRunning={await isPlanning(view.head.number)} />;
}
