import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { PaperScreen } from "../../../../../features/handover/paper-screen";
import { isLanguage } from "../../../../../paper/said";
import { isPaper } from "../../../../../server/documents/papers";
import { paperPage } from "../../../../../server/views/job-page";

export const metadata: Metadata = { title: "Paper" };

type Asked = { kind?: string | string[]; in?: string | string[] };

export default async function Page({ params, searchParams }: { params: Promise<{ number: string }>; searchParams: Promise<Asked> }) {
  const { number } = await params;
  const { kind = "client", in: language = "en" } = await searchParams;
  if (typeof kind !== "string" || typeof language !== "string" || !isPaper(kind) || !isLanguage(language)) notFound();
  return <PaperScreen number={decodeURIComponent(number)} kind={kind} language={language} {...(await paperPage(number, kind, language))} />;
}
