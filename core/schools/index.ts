import type { Graph, LeadNode, Policy } from "../assembly";
import { lower } from "../words";
import type { Answer, Commanded, School } from "./school";
import { caseFans } from "./wiring/case-fans";
import { cooling } from "./wiring/cooling";
import { graphicsCables } from "./wiring/graphics-cables";
import { mains } from "./wiring/mains";
import { secondCpuPlug } from "./wiring/second-cpu-plug";
import { benchTest } from "./work/bench-test";
import { cardTurn } from "./work/card-turn";
import { coolerFirst } from "./work/cooler-first";
import { dressing } from "./work/dressing";
import { driver } from "./work/driver";
import { rehearsal } from "./work/rehearsal";
import { sataData } from "./work/sata-data";
import { supplyCables } from "./work/supply-cables";

export type { School } from "./school";

/** Where plugs go. */
export const WIRING_SCHOOLS = [cooling, caseFans, secondCpuPlug, graphicsCables, mains] as const;
/** How one goes about the work: each answer with what it risks. */
export const WORK_SCHOOLS = [benchTest, rehearsal, coolerFirst, supplyCables, cardTurn, dressing, sataData, driver] as const;
/** The questions on which good technicians differ. Adding one is adding a file and its line here, and its answers to the policy (core/assembly). */
export const SCHOOLS = [...WIRING_SCHOOLS, ...WORK_SCHOOLS] as const;
export type SchoolId = (typeof SCHOOLS)[number]["id"];

/** A school and an answer to it as a person says them. What is not known is said as it is. */
export function schoolInWords(id: string, answer: unknown): { school: string; answer: string } {
  const school = SCHOOLS.find((s) => s.id === id);
  const options: Readonly<Record<string, Answer>> = school?.options ?? {};
  return { school: school ? lower(school.word) : id, answer: options[String(answer)]?.words ?? String(answer) };
}

const of = (lead: LeadNode): Pick<School, "departs" | "asksHub" | "words"> | undefined =>
  WIRING_SCHOOLS.find((s) => s.roles.includes(lead.lead.role));

/**
 * Does this lead, commanded so, depart from the shop's way? Judged at the header that controls it, through hubs and splitters.
 * Leads that no school speaks of never depart.
 */
export const departs = (graph: Graph, lead: LeadNode, commanded: Commanded): boolean => of(lead)?.departs?.(graph, lead, commanded) ?? false;

/** Does the shop's way ask for a powered hub for this lead? */
export const asksHub = (policy: Policy, lead: LeadNode): boolean => of(lead)?.asksHub?.(policy) ?? false;

/** The school of a lead in a clause, for "why here". Empty where no school speaks of it. */
export const schoolWords = (policy: Policy, lead: LeadNode): string => of(lead)?.words?.(policy, lead) ?? "";
