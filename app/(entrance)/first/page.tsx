import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { FirstLeadScreen } from "../../../features/people/first-lead-screen";
import { shopWantsFirstLead } from "../../../server/people/pages";

export const metadata: Metadata = { title: "First lead" };
export const dynamic = "force-dynamic";

export default async function Page() {
  if (!(await shopWantsFirstLead())) redirect("/sign-in");
  return <FirstLeadScreen />;
}
