import { type Mating, mate } from "../catalogue";
import type { LeadNode, PartNode, PortNode } from "./shape";

/**
 * Whose pin-out the outlets of a supply have, or the roots of a cable: a maker's named system, else its own alone. A cable out of a supply's
 * bag belongs to it because it is its own, whatever its outlets are called.
 */
export function pinOutOf(part: PartNode): string {
  const { maker, outletSystem } = part.type;
  return outletSystem === undefined || maker === "" ? `own:${part.cable?.owner ?? part.id}` : `${maker} ${outletSystem}`;
}

const outletKey = (part: PartNode, kind: string | undefined): string => `${pinOutOf(part)}|${kind ?? ""}`;
/** The pin-out and the kind of an outlet, or of what a root wants: two that are equal belong together. */
export const outletOf = (p: PortNode): string => outletKey(p.part, p.port.key);
export const outletWanted = (cable: PartNode, kind: string | undefined): string => outletKey(cable, kind);

/** Does this plug go into this port, and with which outcome? Foreign cables of supplies look as if they did, and destroy what hangs on them. */
export function mateOf(l: LeadNode, p: PortNode): Mating {
  const by = mate(l.lead.family, p.port.family, l.lead.key, p.port.key);
  if (l.lead.role !== "cable-root" || p.port.family !== "supply-outlet" || l.lead.family !== "supply-outlet") return by;
  if (pinOutOf(l.part) !== pinOutOf(p.part))
    return {
      outcome: "harm",
      because: `${l.part.part.label ?? l.part.type.name} came with something else than ${p.part.part.label ?? p.part.type.name}: pin-outs differ`,
    };
  return by;
}
