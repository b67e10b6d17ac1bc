import type { Metadata } from "next";
import { NewTypeScreen } from "../../../../features/shelf/new-type-screen";
import { whoIsIt } from "../../../../server/kernel/who";
import { toSignIn } from "../../../../server/unit/door";
import { partTypePage } from "../../../../server/views/job-page";

export const metadata: Metadata = { title: "New part type" };

export default async function Page({ searchParams }: { searchParams: Promise<{ kind?: string; like?: string }> }) {
  const { kind: asked, like } = await searchParams;
  const who = await whoIsIt();
  if (!who) return toSignIn();
  const alike = like ? (await partTypePage(like)).type : null;
  const kind = alike?.kind ?? asked ?? "board";
  return <NewTypeScreen key={`${kind} ${alike?.id ?? ""}`} asked={kind} alike={alike} by={who.name} />;
}
