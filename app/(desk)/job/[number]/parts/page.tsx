import type { Metadata } from "next";
import { PartsScreen } from "../../../../../features/parts/parts-screen";
import { jobPage, partsExtras } from "../../../../../server/views/job-page";
import { partsSlice } from "../../../../../server/views/slices";

export const metadata: Metadata = { title: "Parts" };

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  const { number } = await params;
  const [view, extras] = await Promise.all([jobPage(number), partsExtras(number)]);
  return <PartsScreen view={partsSlice(view)} {...extras} />;
}
