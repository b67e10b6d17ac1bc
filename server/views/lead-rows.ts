import { type Connection, naturally } from "../../core/assembly";
import { type Loom, mate, usable } from "../../core/catalogue";
import type { Finding } from "../../core/checks";
import { freeEnds } from "../../core/claims";
import { needOf } from "../../core/wiring";
import type { JobBuild } from "../build/build-of-job";

export type LeadState = "free" | "planned" | "plugged" | "checked" | "wrong";

export interface LeadRow {
  address: string;
  tag: string;
  name: string;
  loom: Loom;
  family: string;
  lengthMm: number;
  state: LeadState;
  fixed: boolean;
  port?: string;
  portName?: string;
  place?: number[];
  why: string;
  /** Planned elsewhere, plugged here. */
  plannedPort?: string;
  plannedName?: string;
  /** Why it has no port. */
  free?: string;
  need: "mandatory" | "wanted" | "optional";
  severity?: Finding["severity"];
  fromPart: string;
  origin: { xMm: number; yMm: number };
  out: boolean;
}

/** A row for each lead of the job: where it is, where it was wanted, why, and what is found about it. */
export function leadRows(b: JobBuild, links: { lead: string; plannedPort?: string | null; why: string }[], findings: Finding[]): LeadRow[] {
  const link = new Map(links.map((l) => [l.lead, l]));
  const free = new Map(freeEnds(b.graph).map((f) => [f.end, f]));
  return [...b.graph.leads.values()]
    .flatMap((l): LeadRow[] => {
      const c = b.graph.ofLead.get(l.address);
      const row = link.get(l.address);
      const p = c && b.graph.ports.get(c.port);
      // Cable plugs that nothing needs stay in the bag: they are no leads of this job.
      if (!c && (l.lead.flow === "out" || l.lead.role === "cable-root")) return [];
      const wrong = p !== undefined && !usable(mate(l.lead.family, p.port.family, l.lead.key, p.port.key));
      const mine = findings.filter((f) => f.ends.includes(l.address));
      const severity = mine.find((f) => f.severity === "stop")?.severity ?? mine.find((f) => f.severity === "warn")?.severity;
      const elsewhere = row?.plannedPort && row.plannedPort !== c?.port ? b.graph.ports.get(row.plannedPort) : undefined;
      return [
        {
          address: l.address,
          tag: l.tag,
          name:
            l.part.cable && l.lead.flow === "out"
              ? `${l.part.part.label}${l.lead.label.includes(", ") ? l.lead.label.slice(l.lead.label.indexOf(", ")) : ""}`
              : l.name,
          loom: l.loom,
          family: l.lead.family,
          lengthMm: l.lead.lengthMm,
          state: wrong ? "wrong" : stateOf(c),
          fixed: c?.state === "fixed",
          why: row?.why ?? "",
          need: needOf(b.graph, l),
          fromPart: l.part.id,
          origin: l.origin,
          out: l.lead.flow === "out",
          ...(c && p ? { port: c.port, portName: p.name, ...(c.place ? { place: c.place } : {}) } : {}),
          ...(elsewhere ? { plannedPort: elsewhere.address, plannedName: elsewhere.name } : {}),
          ...(c ? {} : { free: free.get(l.address)?.reason ?? "" }),
          ...(severity ? { severity } : {}),
        },
      ];
    })
    .sort((a, b2) => naturally(a.tag, b2.tag));
}

const stateOf = (c: Connection | undefined): LeadState => (!c ? "free" : c.state === "fixed" ? "planned" : c.state);
