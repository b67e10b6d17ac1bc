import { redirect } from "next/navigation";
import { stageSlug } from "../../../../features/shared/stage-slug";
import { jobPage, scannedPage } from "../../../../server/views/job-page";

/** A job's own address leads to where its work is. */
export default async function Page({
  params,
  searchParams,
}: {
  params: Promise<{ number: string }>;
  searchParams: Promise<{ scan?: string | string[] }>;
}) {
  const { head } = await jobPage((await params).number);
  const { scan } = await searchParams;
  // A label was scanned by a phone: to what it names.
  const to = typeof scan === "string" ? await scannedPage(`${head.number} ${scan}`) : undefined;
  if (to) redirect(to);
  redirect(`/job/${encodeURIComponent(head.number)}/${stageSlug(head.stage)}`);
}
