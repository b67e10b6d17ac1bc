import { zoneOf } from "../../assembly";
import { rootOf, wayOfLead } from "../../brings";
import { placeWords } from "../../claims";
import { finding, PLAN_ONLY, type Rule } from "../rule";

/** A place whose fans all report, and none of whose signals reaches a header: the firmware cannot warn when one stops. */
export const speedUnread: Rule = {
  id: "speed-unread",
  title: "Somebody reads a speed of each place",
  protects: "a fan that stops unseen",
  on: PLAN_ONLY,
  run: ({ graph }) => {
    const zones = new Map<string, { leads: string[]; tags: string[]; reports: boolean; read: boolean }>();
    for (const l of graph.leads.values()) {
      if (l.loom !== "fans" || !["cpu-fan", "radiator-fan", "case-fan", "pump"].includes(l.lead.role) || !graph.ofLead.has(l.address)) continue;
      const zone = zoneOf(graph, l);
      const z = zones.get(zone) ?? { leads: [], tags: [], reports: false, read: false };
      zones.set(zone, z);
      z.leads.push(l.address);
      z.tags.push(l.tag);
      z.reports ||= l.lead.reportsSpeed === true;
      z.read ||= l.lead.reportsSpeed === true && wayOfLead(graph, l.address, "speed").end !== undefined;
      const port = graph.ports.get(graph.ofLead.get(l.address)?.port ?? "");
      const root = port && rootOf(graph, port);
      // A cooler watches what hangs on its own outlets.
      z.read ||= root?.kind === "hub" && root.part.type.kind === "cooler";
    }
    return [...zones].flatMap(([zone, z]) => {
      if (z.read) return [];
      const why = z.reports ? "their speed signals end at a splitter, hub or chain that passes on another one" : "none of them gives a speed signal";
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
