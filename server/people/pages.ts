import "server-only";
import { notFound } from "next/navigation";
import { entityManager } from "../../db";
import { see } from "../unit/door";
import { benchPeople, type OwnView, own, type PeopleView, people } from "./views";
import { wantsFirstLead } from "./wants-first-lead";

export const shopWantsFirstLead = async (): Promise<boolean> => wantsFirstLead(await entityManager());

/** People and sign-ins, for who keeps them; the page that says that there is nothing for anybody else. */
export async function peoplePage(): Promise<PeopleView> {
  const view = await see(people, {});
  if (!view) notFound();
  return view;
}

export async function ownPage(): Promise<OwnView> {
  const view = await see(own, {});
  if (!view) notFound();
  return view;
}

export const peopleAtBench = async () => (await see(benchPeople, {})) ?? [];
