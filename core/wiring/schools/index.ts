import type { Graph, LeadNode, Policy } from "../../assembly";
import { caseFans } from "./case-fans";
import { cooling } from "./cooling";
import { graphicsCables } from "./graphics-cables";
import { mains } from "./mains";
import type { Commanded, School } from "./school";
import { secondCpuPlug } from "./second-cpu-plug";

export type { School } from "./school";

/** The schools of the shop. Adding one is adding a file and its line here. */
export const SCHOOLS = [cooling, caseFans, secondCpuPlug, graphicsCables, mains] as const;

const of = (lead: LeadNode): Pick<School, "departs" | "asksHub" | "words"> | undefined => SCHOOLS.find((s) => s.roles.includes(lead.lead.role));

/**
 * Does this lead, commanded so, depart from the shop's way? Judged at the header that controls it, through hubs and splitters.
 * Leads that no school speaks of never depart.
 */
export const departs = (graph: Graph, lead: LeadNode, commanded: Commanded): boolean => of(lead)?.departs?.(graph, lead, commanded) ?? false;

/** Does the shop's way ask for a powered hub for this lead? */
export const asksHub = (policy: Policy, lead: LeadNode): boolean => of(lead)?.asksHub?.(policy) ?? false;

/** The school of a lead in a clause, for "why here". Empty where no school speaks of it. */
export const schoolWords = (policy: Policy, lead: LeadNode): string => of(lead)?.words?.(policy, lead) ?? "";
