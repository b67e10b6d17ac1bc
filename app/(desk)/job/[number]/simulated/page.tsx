import type { Metadata } from "next";
import { SimulatedScreen } from "../../../../../features/machine/simulated-screen";
import { jobPage } from "../../../../../server/views/job-page";
import { simulatedSlice } from "../../../../../server/views/slices";

export const metadata: Metadata = { title: "Simulated machine" };

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  const { number } = await params;
  return <SimulatedScreen view={simulatedSlice(await jobPage(number))} />;
}
