import type { Metadata } from "next";
import { ShelfScreen } from "../../../features/shelf/shelf-screen";
import { SHELF_ORDERS } from "../../../server/shelf/search";
import { shelfPage } from "../../../server/views/jobs-page";

export const metadata: Metadata = { title: "Shelf" };

export default async function Page({
  searchParams,
}: {
  searchParams: Promise<{ q?: string; kind?: string; sort?: string; page?: string; only?: string }>;
}) {
  const { q = "", kind = "", sort, page: at, only: which } = await searchParams;
  const [text, only] = [String(q).slice(0, 80), String(kind).slice(0, 30)];
  const provisional = which === "provisional";
  // Of provisional types those count first on which most jobs rest.
  const order = SHELF_ORDERS.find((o) => o === sort) ?? (provisional ? "jobs" : "name");
  const page = Math.max(0, Math.min(2000, Math.floor(Number(at) || 1) - 1));
  return (
    <ShelfScreen found={await shelfPage(text, only, order, page, provisional)} asked={{ q: text, kind: only, sort: order, page, provisional }} />
  );
}
