import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { entityManager } from "../../../../db";
import { TypeScreen } from "../../../../features/shelf/type-screen";
import { shelfEntry } from "../../../../server/shelf/search";

export const metadata: Metadata = { title: "Part type" };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const entry = await shelfEntry(await entityManager(), decodeURIComponent((await params).id));
  if (!entry) notFound();
  return <TypeScreen key={entry.type.id} entry={entry} />;
}
