import type { Graph, PartNode } from "../assembly";
import type { PartKind } from "../catalogue";
import { modesOf } from "../machine";

/** One thing that may be wrong: an element in a mode. */
export interface Cause {
  /** `element=mode`. */
  id: string;
  element: string;
  mode: string;
  /** What kind of thing it is in: `fan`, `joint`, `port`. */
  kind: string;
  /** What is said of it: "FN-02 in SYS_FAN1: it is loose". */
  words: string;
  /** Of ten thousand machines at their first start so many have it (common practice, from memory; the shop's own record counts over it). */
  perTenThousand: number;
}

/** Of ten thousand, by what it is in: a plug that is not in comes long before a dead part. */
const OFTEN: Readonly<Record<string, number>> = {
  "joint out": 30,
  "joint loose": 40,
  "joint half": 15,
  "port dead": 2,
  "cable dead": 8,
  "cable of another supply": 1,
  "mains off": 60,
  "supply off": 60,
  "supply dead": 30,
  "supply weak": 12,
  "board dead": 20,
  "board old firmware": 20,
  "board touches metal": 8,
  "cpu dead": 2,
  "cpu unseated": 4,
  "memory dead": 25,
  "memory unseated": 70,
  "memory dark": 10,
  "card dead": 15,
  "card unseated": 40,
  "drive dead": 20,
  "drive unseated": 30,
  "fan dead": 12,
  "fan still": 12,
  "fan no signal": 6,
  "fan dark": 12,
  "fan slow": 4,
  "fan rubs": 25,
  "hub dead": 15,
  "hub no control": 8,
  "splitter dead": 8,
  "cooler dead": 6,
  "cooler still": 10,
  "cooler no signal": 5,
  "cooler dark": 8,
  "cooler slow": 2,
  "cooler rubs": 5,
  "cooler film on": 15,
  "cooler no paste": 5,
  "cooler uneven": 20,
  "settings profile off": 60,
  "settings too fast": 25,
  "lighting dead": 12,
  "lighting dark": 4,
  "monitor dead": 5,
  "monitor in the board": 60,
  "monitor in an input": 20,
  "switch dead": 6,
};
const RARE = 2;

/** What multiplies a kind's figure, by the shop's own record: `kind mode`. */
export type Priors = Readonly<Record<string, number>>;

const kindOf = (graph: Graph, element: string): PartKind | "joint" | "port" | "mains" | "monitor" | "settings" | "switch" => {
  if (element === "mains" || element === "monitor" || element === "settings") return element;
  if (element.includes("@")) return "joint";
  const part: PartNode | undefined = graph.parts.get(element);
  if (part) return part.cable ? "cable" : part.type.kind;
  return graph.ports.has(element) ? "port" : "switch";
};

/** Everything that may be wrong with a machine as it is plugged, one thing at a time. A plug that is out and one that is loose are one. */
export function causesOf(graph: Graph, priors: Priors = {}): Cause[] {
  const used = new Set(graph.connections.map((c) => c.port));
  const elements = [
    ...[...graph.parts.values()].filter((p) => !p.cable || graph.connections.some((c) => c.lead.startsWith(`${p.id}:`))).map((p) => p.id),
    // What sits in a slot is unseated, not unplugged: one cause, not two.
    ...graph.connections.filter((c) => graph.leads.get(c.lead)?.loom !== "seat").map((c) => `${c.lead}@${c.port}`),
    ...[...graph.ports.values()].filter((p) => used.has(p.address) && p.port.flow === "out").map((p) => p.address),
    ...[...graph.leads.values()].filter((l) => l.part.type.kind === "case" && l.lead.role === "panel").map((l) => l.address),
    "mains",
    ...(graph.parts.size > 0 ? ["monitor", "settings"] : []),
  ];
  return elements.flatMap((element) => {
    const kind = kindOf(graph, element);
    return modesOf(graph, element).flatMap((m): Cause[] => {
      if (m.id === "out" && kind === "joint") return [];
      const key = `${kind} ${m.id}`;
      const often = (OFTEN[key] ?? RARE) + (m.id === "loose" ? (OFTEN["joint out"] ?? 0) : 0);
      return [
        { id: `${element}=${m.id}`, element, mode: m.id, kind, words: m.words(nameOf(graph, element)), perTenThousand: often * (priors[key] ?? 1) },
      ];
    });
  });
}

/** What an element is called. */
export function nameOf(graph: Graph, element: string): string {
  if (element === "mains") return "The mains lead";
  if (element === "monitor") return "The monitor";
  if (element === "settings") return "The firmware's settings";
  const [lead, port] = element.split("@");
  const [l, p] = [graph.leads.get(lead ?? ""), graph.ports.get(port ?? "")];
  if (l && p) return `${l.tag} in ${p.name}`;
  const part = graph.parts.get(element);
  if (part) return part.part.label ?? part.type.name;
  const at = graph.ports.get(element);
  if (at) return at.name;
  const own = graph.leads.get(element);
  return own ? `${own.name} of the case` : element;
}
