import type { Metadata } from "next";
import { YouScreen } from "../../../features/people/you-screen";
import { ownPage } from "../../../server/people/pages";

export const metadata: Metadata = { title: "You" };

export default async function Page() {
  return <YouScreen view={await ownPage()} />;
}
