import type { Metadata } from "next";
import { IntakeScreen } from "../../../features/intake/intake-screen";
import { earlierJobs } from "../../../server/views/job-page";

export const metadata: Metadata = { title: "New job" };

export default async function Page() {
  return <IntakeScreen earlier={await earlierJobs()} />;
}
