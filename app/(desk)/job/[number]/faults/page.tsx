import type { Metadata } from "next";
import { FaultsScreen } from "../../../../../features/faults/faults-screen";
import { jobPage } from "../../../../../server/read/job-page";

export const metadata: Metadata = { title: "Faults" };

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  const { faults, diagnosis, head, seen } = await jobPage((await params).number);
  return <FaultsScreen view={{ faults, diagnosis, head, seen }} />;
}
