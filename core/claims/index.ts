import type { Connection, Graph, LeadNode, PortNode } from "../assembly";
import { claimEmpty, claimFree } from "./free";
import { claimsHere } from "./here";
import { say, sayAll } from "./words";

export type { Claim, Hindrance } from "./claim";
export { claimEmpty, claimFree, type Free, freeEnds, isPlanned } from "./free";
export { claimsHere } from "./here";
export { hindrance } from "./hindered";
export { account, type TiedBack, tiedBack } from "./tied-back";
export { placeWords, say, sayAll } from "./words";

/** Why a connection is where it is, in words. */
export const whyHere = (graph: Graph, c: Connection): string => sayAll(graph, claimsHere(graph, c));
/** Why a lead has no port, in words. */
export const whyFree = (graph: Graph, l: LeadNode): string => say(graph, claimFree(graph, l));
/** Why a socket is empty, in words. */
export const whyEmpty = (graph: Graph, p: PortNode): string => say(graph, claimEmpty(graph, p));
