import type { Metadata } from "next";
import { PeopleScreen } from "../../../features/people/people-screen";
import { peoplePage } from "../../../server/people/pages";

export const metadata: Metadata = { title: "People" };

export default async function Page() {
  return <PeopleScreen view={await peoplePage()} />;
}
