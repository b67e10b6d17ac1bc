import type { Metadata } from "next";
import { FaultsScreen } from "../../../../../features/faults/faults-screen";
import { jobPage } from "../../../../../server/views/job-page";
import { faultsSlice } from "../../../../../server/views/slices";

export const metadata: Metadata = { title: "Faults" };

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  const view = await jobPage((await params).number);
  return <FaultsScreen view={faultsSlice(view)} />;
}
