import { type Address, type Build, type Connection, type Graph, type PartNode, type PortNode, partsOfKind, type RestsOn } from "../assembly";
import type { PartKind } from "../catalogue";
import type { Clearance } from "../fit";

export type Severity = "stop" | "warn" | "note";

/** A remedy that one press applies. */
export type Remedy =
  | { kind: "move"; label: string; lead: Address; port: Address; place?: number[] }
  | { kind: "unplug"; label: string; lead: Address }
  | { kind: "plan"; label: string }
  /** Another part in the place of this one: the shelf is searched for what fits. */
  | { kind: "swap"; label: string; part: string };

/** A change of the build that may mend a finding: a way out only once it was tried. */
export interface Try {
  what: string;
  change: (build: Build) => Build;
  /** The number that it leads to, in words. */
  leadsTo?: (after: Graph) => string;
}

export interface Finding {
  /** The clearance that it is about: its ways out are tried when somebody asks for them. */
  clearance?: Clearance;
  /** Stable for the same cause, so that an override or an opened stop can be remembered. */
  id: string;
  rule: string;
  severity: Severity;
  message: string;
  ends: Address[];
  remedy?: Remedy;
  /** Parts whose going in waits until it is settled, though it is no stop. */
  holds?: string[];
  /** What happens when nobody minds. */
  ifIgnored?: string;
  /** Ways out that were tried, in words with their numbers. */
  ways?: string[];
  /** Ways out that are to be tried before anybody reads them. */
  tries?: Try[];
}

export interface Context {
  graph: Graph;
  /**
   * `parts`: the parts list alone, before any plan; `plan`: the whole plan is judged; `plugged`: only what hands have
   * done, so what is still missing is no fault.
   */
  on: "parts" | "plan" | "plugged";
}

/** One rule: small, with an id, and blind to every other rule. */
export interface Rule {
  id: string;
  title: string;
  protects: string;
  /** Rules about what is missing make sense on a whole plan only. */
  on: readonly Context["on"][];
  /** Figures of parts that its sentences rest on: where one is only assumed, the sentence says so. */
  rests?: RestsOn;
  /** Kinds of parts it looks at, wishes and settings apart; left out: any. What none of them changed need not be judged again. */
  reads?: readonly PartKind[];
  run(context: Context): Finding[];
}

export const ALWAYS = ["plan", "plugged"] as const;
export const PLAN_ONLY = ["plan"] as const;
export const PARTS_AND_PLAN = ["parts", "plan"] as const;
export const PARTS_ONLY = ["parts"] as const;

/** What a rule about parts says: which parts, what follows when it is ignored, which ways out there are. */
export interface PartsVerdict {
  severity: Severity;
  message: string;
  parts: string[];
  ifIgnored?: string;
  /** Ways out that were tried. */
  ways?: string[];
  tries?: Try[];
  clearance?: Clearance;
  /** The part whose replacement from the shelf is a way out. */
  swap?: string;
}

export function partsFinding(rule: Rule["id"], v: PartsVerdict): Finding {
  return {
    ...finding(rule, v.severity, v.message, v.parts, v.swap ? { kind: "swap", label: "Parts from the shelf that fit", part: v.swap } : undefined),
    ...(v.ifIgnored ? { ifIgnored: v.ifIgnored } : {}),
    ...(v.ways && v.ways.length > 0 ? { ways: v.ways } : {}),
    ...(v.clearance && v.clearance.verdict !== "fits" ? { clearance: v.clearance } : {}),
    ...(v.tries && v.tries.length > 0 ? { tries: v.tries } : {}),
  };
}

export function finding(rule: Rule["id"], severity: Severity, message: string, ends: Address[], remedy?: Remedy): Finding {
  return { id: `${rule}:${ends.join("+")}`, rule, severity, message, ends, ...(remedy ? { remedy } : {}) };
}

/** Free places of the case that take a part like this one, as the case lists them; of one way of the air only, where asked. */
export function freeMounts(graph: Graph, like: PartNode, takes: (m: Mount) => boolean = () => true): Mount[] {
  const taken = new Set(graph.build.parts.map((p) => p.mount));
  const { kind, body } = like.type;
  return (partsOfKind(graph, "case")[0]?.type.body.mounts ?? []).filter(
    (m) =>
      (m.takes as readonly string[]).includes(kind) &&
      !taken.has(m.id) &&
      (kind !== "fan" || m.sizeMm === undefined || m.sizeMm >= (body.widthMm ?? 120)) &&
      takes(m),
  );
}
type Mount = PartNode["type"]["body"]["mounts"][number];

/** The build with one part changed, or without it. */
export const changed = (build: Build, part: string, change: (p: Build["parts"][number]) => Build["parts"][number] | undefined): Build => ({
  ...build,
  parts: build.parts.flatMap((p) => (p.id === part ? (change(p) ?? []) : [p])),
});

/** Every connection with both its ends. */
export function joints(graph: Graph) {
  return graph.connections.flatMap((c: Connection) => {
    const lead = graph.leads.get(c.lead);
    const port = graph.ports.get(c.port);
    return lead && port ? [{ c, lead, port }] : [];
  });
}

export const isEmpty = (graph: Graph, p: PortNode) => (graph.atPort.get(p.address)?.length ?? 0) === 0;
