import type { Address, Connection, Graph, PortNode } from "../build";

export type Severity = "stop" | "warn" | "note";

/** A remedy that one press applies. */
export type Remedy =
  | { kind: "move"; label: string; lead: Address; port: Address; place?: number[] }
  | { kind: "unplug"; label: string; lead: Address }
  | { kind: "plan"; label: string };

export interface Finding {
  /** Stable for the same cause, so that an override or an opened stop can be remembered. */
  id: string;
  rule: string;
  severity: Severity;
  message: string;
  ends: Address[];
  remedy?: Remedy;
}

export interface Context {
  graph: Graph;
  /** `plan`: the whole plan is judged; `plugged`: only what hands have done, so what is still missing is no fault. */
  on: "plan" | "plugged";
}

/** One rule: small, with an id, and blind to every other rule. */
export interface Rule {
  id: string;
  title: string;
  protects: string;
  /** Rules about what is missing make sense on a whole plan only. */
  on: readonly Context["on"][];
  run(context: Context): Finding[];
}

export const ALWAYS = ["plan", "plugged"] as const;
export const PLAN_ONLY = ["plan"] as const;

export function finding(rule: Rule["id"], severity: Severity, message: string, ends: Address[], remedy?: Remedy): Finding {
  return { id: `${rule}:${ends.join("+")}`, rule, severity, message, ends, ...(remedy ? { remedy } : {}) };
}

/** Every connection with both its ends. */
export function joints(graph: Graph) {
  return graph.connections.flatMap((c: Connection) => {
    const lead = graph.leads.get(c.lead);
    const port = graph.ports.get(c.port);
    return lead && port ? [{ c, lead, port }] : [];
  });
}

export const isEmpty = (graph: Graph, p: PortNode) => (graph.atPort.get(p.address)?.length ?? 0) === 0;
