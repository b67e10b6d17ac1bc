import type { Metadata } from "next";
import { ShelfScreen } from "../../../features/shelf/shelf-screen";
import { shelfPage } from "../../../server/views/jobs-page";

export const metadata: Metadata = { title: "Shelf" };

export default async function Page({ searchParams }: { searchParams: Promise<{ q?: string; kind?: string }> }) {
  const { q = "", kind = "" } = await searchParams;
  const [text, only] = [String(q).slice(0, 80), String(kind).slice(0, 30)];
  return <ShelfScreen found={await shelfPage(text, only)} q={text} kind={only} />;
}
