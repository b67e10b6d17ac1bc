import { type Graph, zoneOf } from "../../assembly";
import { type Nowhere, rootOf, wayOfLead } from "../../brings";
import { placeWords } from "../../claims";
import { finding, PLAN_ONLY, type Rule } from "../rule";

/** A place whose fans all report, and none of whose signals reaches a header: the firmware cannot warn when one stops. */
export const speedUnread: Rule = {
  id: "speed-unread",
  title: "Somebody reads a speed of each place",
  protects: "a fan that stops unseen",
  on: PLAN_ONLY,
  run: ({ graph }) => {
    const zones = new Map<string, { leads: string[]; tags: string[]; reports: number; read: boolean; ends: Set<string> }>();
    for (const l of graph.leads.values()) {
      if (l.loom !== "fans" || !["cpu-fan", "radiator-fan", "case-fan", "pump"].includes(l.lead.role) || !graph.ofLead.has(l.address)) continue;
      const zone = zoneOf(graph, l);
      const z = zones.get(zone) ?? { leads: [], tags: [], reports: 0, read: false, ends: new Set() };
      zones.set(zone, z);
      z.leads.push(l.address);
      z.tags.push(l.tag);
      if (l.lead.reportsSpeed) {
        const { end, nowhere } = wayOfLead(graph, l.address, "speed");
        z.reports++;
        z.read ||= end !== undefined;
        if (nowhere) z.ends.add(endsAt(graph, nowhere));
      }
      const port = graph.ports.get(graph.ofLead.get(l.address)?.port ?? "");
      const root = port && rootOf(graph, port);
      // A cooler watches what hangs on its own outlets.
      z.read ||= root?.kind === "hub" && root.part.type.kind === "cooler";
    }
    return [...zones].flatMap(([zone, z]) => {
      if (z.read) return [];
      const [one, all] = [z.leads.length === 1, z.reports === z.leads.length];
      const whose = one ? "its speed signal ends" : all ? "their speed signals end" : "such speed signals as they give end";
      const none = one ? "it gives no speed signal" : "none of them gives a speed signal";
      const why = z.reports > 0 ? `${whose} at ${[...z.ends].sort().join(" or at ")}` : none;
      return [
        finding(
          "speed-unread",
          "note",
          `No speed of ${placeWords(zone)} is read (${z.tags.join(", ")}): ${why}. A fan that stops there is not noticed.`,
          z.leads,
        ),
      ];
    });
  },
};

/** What a speed signal that nobody reads comes to. */
function endsAt(graph: Graph, nowhere: Nowhere): string {
  const port = nowhere.kind === "none" ? graph.ports.get(nowhere.port) : undefined;
  if (!port) return "a plug that is in no port, or in one where it does not work";
  if (port.part.type.kind === "board") return "a header that reads none";
  const { kind, ports, leads } = port.part.type;
  const another = ports.some((p) => p.speedTo !== undefined) || (kind === "fan" && leads.some((l) => l.reportsSpeed));
  return `a splitter, hub or chain that passes ${another ? "on another one" : "none on"}`;
}
