import type { Metadata } from "next";
import { entityManager } from "../../../../../db";
import { PartsScreen } from "../../../../../features/parts/parts-screen";
import { jobPage } from "../../../../../server/job-page";
import { alternatives } from "../../../../../server/jobs";

export const metadata: Metadata = { title: "Parts" };

export default async function Page({ params }: { params: Promise<{ number: string }> }) {
  const { build, head, plan, leads, draw } = await jobPage((await params).number);
  const kinds = [...new Set(build.partTypes.map((t) => t.kind))];
  const em = await entityManager();
  const options: Record<string, { id: string; name: string }[]> = {};
  for (const kind of kinds) options[kind] = await alternatives(em, kind);
  return <PartsScreen view={{ build, head, plan, leads, draw }} alternatives={options} />;
}
