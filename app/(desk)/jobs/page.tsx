import type { Metadata } from "next";
import { JobsScreen } from "../../../features/benches/jobs-screen";
import { jobsPage } from "../../../server/views/jobs-page";

export const metadata: Metadata = { title: "All jobs" };

export default async function Page({ searchParams }: { searchParams: Promise<Record<string, string | string[] | undefined>> }) {
  const { q, stage, page } = await searchParams;
  const text = typeof q === "string" ? q : "";
  const at = typeof stage === "string" ? stage : "";
  return <JobsScreen list={await jobsPage(text, at, Number(page) || 1)} text={text} stage={at} />;
}
