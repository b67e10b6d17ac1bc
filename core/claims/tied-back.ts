import { type Graph, naturally } from "../assembly";
import { family } from "../catalogue";

/** A plug that goes nowhere and cannot go into the bag: it is tied back where it does not touch a fan. */
export interface TiedBack {
  end: string;
  what: string;
  reason: string;
}

/** Plugs of captive cables, spare plugs of cables in use, and halves of split plugs that hang beside their socket. */
export function tiedBack(graph: Graph): TiedBack[] {
  const out: TiedBack[] = [];
  for (const node of graph.parts.values()) {
    const bag = node.cable;
    if (!bag) continue;
    const used = node.type.leads.some((l) => graph.ofLead.has(`${node.id}:${l.id}`));
    for (const l of node.type.leads) {
      const end = `${node.id}:${l.id}`;
      const c = graph.ofLead.get(end);
      const name = graph.leads.get(end)?.name ?? end;
      if (!c && (bag.captive || used) && l.role !== "cable-root")
        out.push({
          end,
          what: name,
          reason:
            bag.captive && !used
              ? "The cable is fixed to the supply and nothing wants it: tie it back."
              : "A spare plug of a cable in use: tie it back.",
        });
      const port = c && graph.ports.get(c.port);
      const half = port && halfLeft(l.family, port.port.family);
      if (half) out.push({ end: `${end}~`, what: `${name}, ${half}`, reason: `${port.name} takes only part of the plug: tie the rest back.` });
    }
  }
  return out.sort((a, b) => naturally(a.end, b.end));
}

function halfLeft(plug: string, socket: string): string | undefined {
  if (plug === "cpu-4+4" && socket === "cpu-4") return "the other four";
  if (plug === "gfx-6+2" && socket === "gfx-6") return "the loose two";
  return undefined;
}

/** Where every end of every lead and cable of the build is: connected, free, in the bag or tied back. */
export function account(graph: Graph): Map<string, "connected" | "free" | "in the bag" | "tied back"> {
  const out = new Map<string, "connected" | "free" | "in the bag" | "tied back">();
  const tied = new Set(tiedBack(graph).map((t) => t.end));
  for (const l of graph.leads.values()) {
    if (graph.ofLead.has(l.address)) out.set(l.address, "connected");
    else if (tied.has(l.address)) out.set(l.address, "tied back");
    else if (l.part.cable) out.set(l.address, l.part.cable.captive && family(l.lead.family).loom === "power" ? "tied back" : "in the bag");
    else if (l.lead.flow === "in") out.set(l.address, "free");
    // An adapter's plug: unused, it is in the bag with the adapter.
    else out.set(l.address, "in the bag");
  }
  for (const p of graph.ports.values()) if (p.port.flow === "in") out.set(p.address, graph.atPort.get(p.address)?.length ? "connected" : "free");
  return out;
}
