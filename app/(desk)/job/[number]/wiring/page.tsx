import type { Metadata } from "next";
import { WiringScreen } from "../../../../../features/wiring/wiring-screen";
import { jobData } from "../../../../../server/views/job-page";

export const metadata: Metadata = { title: "Wiring" };

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  return <WiringScreen first={await jobData((await params).number, "wiring")} />;
}
