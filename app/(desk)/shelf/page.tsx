import type { Metadata } from "next";
import { entityManager } from "../../../db";
import { ShelfScreen } from "../../../features/shelf/shelf-screen";
import { searchShelf } from "../../../server/shelf/search";

export const metadata: Metadata = { title: "Shelf" };

export default async function Page({ searchParams }: { searchParams: Promise<{ q?: string; kind?: string }> }) {
  const { q = "", kind } = await searchParams;
  const found = await searchShelf(await entityManager(), String(q).slice(0, 80), kind ? String(kind).slice(0, 30) : undefined);
  return <ShelfScreen found={found} q={String(q).slice(0, 80)} kind={kind ? String(kind) : ""} />;
}
