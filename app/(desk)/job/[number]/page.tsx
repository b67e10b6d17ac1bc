import { redirect } from "next/navigation";
import { stageSlug } from "../../../../features/shared/stage-slug";
import { jobPage } from "../../../../server/views/job-page";

/** A job's own address leads to where its work is. */
export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  const { head } = await jobPage((await params).number);
  redirect(`/job/${encodeURIComponent(head.number)}/${stageSlug(head.stage)}`);
}
