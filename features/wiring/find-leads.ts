import { type Graph, naturally, type Part, type PortNode, partIdOf } from "../../core/assembly";
import { family, LOOM_NAME, LOOMS } from "../../core/catalogue";
import type { LeadRow } from "../../server/views/lead-rows";

export const SHOW = {
  all: "All states",
  free: "Without a port",
  open: "Not plugged yet",
  wrong: "Not as planned",
  finding: "With a finding",
} as const;
export type Show = keyof typeof SHOW;
export const GROUP = { loom: "By loom", part: "By part", port: "By where to" } as const;
export type Group = keyof typeof GROUP;

const shows: Record<Show, (l: LeadRow) => boolean> = {
  all: () => true,
  free: (l) => !l.port,
  open: (l) => l.state === "free" || l.state === "planned",
  wrong: (l) => l.state === "wrong",
  finding: (l) => l.severity !== undefined,
};

const plain = (s: string) =>
  s
    .toLowerCase()
    .replace(/[\s_-]+/g, " ")
    .trim();

/** Every word that was typed stands somewhere in the lead's tag, name, port, part or the part's serial. */
export function findLeads(leads: readonly LeadRow[], parts: readonly Part[], text: string, show: Show): LeadRow[] {
  const words = plain(text).split(" ").filter(Boolean);
  const serial = new Map(parts.map((p) => [p.id, p.serial ?? ""]));
  const exact = leads.filter((l) => shows[show](l) && plain(l.tag) === plain(text));
  // A whole tag names its lead, and nothing that only mentions it.
  if (exact.length > 0) return exact;
  return leads.filter((l) => {
    if (!shows[show](l)) return false;
    const hay = plain([l.tag, l.name, l.portName ?? "", l.fromPart, serial.get(l.fromPart) ?? ""].join(" "));
    return words.every((w) => hay.includes(w));
  });
}

export interface FoundPort {
  address: string;
  name: string;
  /** What goes in, in words. */
  kind: string;
}
/** More than these say that another word is wanted. */
const MOST_PORTS = 24;

/** Room for one plug more: front-panel blocks and USB 2 headers take several. */
function hasRoom(graph: Graph, p: PortNode): boolean {
  const there = graph.atPort.get(p.address) ?? [];
  const taken = there.flatMap((c) => c.place ?? []).length;
  return there.every((c) => c.place) && taken < (p.port.places ?? family(p.port.family).places);
}

/** Ports with room, of any part, whose name or kind has every word that was typed; none before something is typed. */
export function findPorts(graph: Graph, text: string): FoundPort[] {
  const words = plain(text).split(" ").filter(Boolean);
  if (words.length === 0) return [];
  const out: FoundPort[] = [];
  for (const p of graph.ports.values()) {
    const kind = family(p.port.family).name;
    const hay = plain(`${p.name} ${kind}`);
    if (words.every((w) => hay.includes(w)) && hasRoom(graph, p)) out.push({ address: p.address, name: p.name, kind });
  }
  return out.sort((a, b) => naturally(a.name, b.name)).slice(0, MOST_PORTS);
}

/** What a scanner read: a lead's tag, or the serial of the part that it hangs on. */
export function scanned(leads: readonly LeadRow[], parts: readonly Part[], code: string): LeadRow | undefined {
  const same = (s: string | undefined) => s !== undefined && s.toLowerCase() === code.toLowerCase();
  const part = parts.find((p) => same(p.serial));
  return leads.find((l) => same(l.tag)) ?? leads.find((l) => part && l.fromPart === part.id);
}

export interface LeadGroup {
  key: string;
  name: string;
  loom?: LeadRow["loom"];
  leads: LeadRow[];
}

/** The list in groups, each lead in one of them; the order within is the list's own. */
export function groupLeads(leads: readonly LeadRow[], parts: readonly Part[], partName: (id: string) => string, group: Group): LeadGroup[] {
  if (group === "loom")
    return LOOMS.map((l) => ({ key: l, name: LOOM_NAME[l], loom: l, leads: leads.filter((x) => x.loom === l) })).filter((g) => g.leads.length > 0);
  const of = (l: LeadRow) => (group === "part" ? l.fromPart : partIdOf(l.port ?? ""));
  const order = new Map(parts.map((p, i) => [p.id, i]));
  const keys = [...new Set(leads.map(of))].sort((a, b) => Number(a === "") - Number(b === "") || (order.get(a) ?? 9999) - (order.get(b) ?? 9999));
  return keys.map((k) => ({ key: k || "none", name: k === "" ? "No port" : partName(k), leads: leads.filter((l) => of(l) === k) }));
}
