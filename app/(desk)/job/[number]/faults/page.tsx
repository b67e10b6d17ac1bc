import type { Metadata } from "next";
import { FaultsScreen } from "../../../../../features/faults/faults-screen";
import { diagnosesPage, jobPage, simulatedStandsPage } from "../../../../../server/views/job-page";
import { faultsSlice } from "../../../../../server/views/slices";

export const metadata: Metadata = { title: "Faults" };

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  const { number } = await params;
  const view = await jobPage(number);
  return <FaultsScreen view={faultsSlice(view)} diagnoses={await diagnosesPage(number)} simulated={await simulatedStandsPage(number)} />;
}
