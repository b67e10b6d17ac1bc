import type { Metadata } from "next";
import { PartsScreen } from "../../../../../features/parts/parts-screen";
import { jobData } from "../../../../../server/views/job-page";

export const metadata: Metadata = { title: "Parts" };

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  return <PartsScreen first={await jobData((await params).number, "parts")} />;
}
