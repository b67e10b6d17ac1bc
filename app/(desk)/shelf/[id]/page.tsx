import type { Metadata } from "next";
import { TypeScreen } from "../../../../features/shelf/type-screen";
import { may } from "../../../../server/kernel/actor";
import { whoIsIt } from "../../../../server/kernel/who";
import { partTypePage } from "../../../../server/views/job-page";

export const metadata: Metadata = { title: "Part type" };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const entry = await partTypePage((await params).id);
  return <TypeScreen key={entry.type.id} entry={entry} mayWithdraw={may(await whoIsIt(), "keep the shop")} />;
}
