import type { Metadata } from "next";
import { redirect } from "next/navigation";
import { SignInScreen } from "../../../features/people/sign-in-screen";
import { whoIsIt } from "../../../server/kernel/who";
import { shopWantsFirstLead } from "../../../server/people/pages";
import { wayBack } from "../../../server/people/way-back";

export const metadata: Metadata = { title: "Sign in" };
export const dynamic = "force-dynamic";

export default async function Page({ searchParams }: { searchParams: Promise<{ to?: string | string[] }> }) {
  const { to } = await searchParams;
  const back = wayBack(to);
  if (await whoIsIt()) redirect(back);
  if (await shopWantsFirstLead()) redirect("/first");
  return <SignInScreen to={back} />;
}
