import { hungOn } from "../../brings";
import { startingCurrentA } from "../../catalogue";
import { amps } from "../../wiring";
import { ALWAYS, finding, joints, type Rule } from "../rule";

/** Steady and starting current, and LEDs, of everything on one header or hub. */
export const rootCurrent: Rule = {
  id: "root-current",
  title: "Headers and hubs stay within their current",
  protects: "headers and hubs",
  on: ALWAYS,
  rests: { fan: ["currentA"] },
  run: ({ graph }) => {
    const seen = new Set<string>();
    return joints(graph).flatMap(({ lead, port }) => {
      if (lead.lead.flow !== "in" || !["fans", "lighting"].includes(lead.loom)) return [];
      const on = hungOn(graph, port);
      if (!on || seen.has(on.hub ?? on.root.address)) return [];
      seen.add(on.hub ?? on.root.address);
      const ends = [on.hub ?? on.root.address, ...on.leads.map((l) => l.address)];
      const tags = on.leads.map((l) => l.tag).join(", ");
      const plan = { kind: "plan", label: "Plan these again" } as const;
      const startA = on.leads.reduce((s, l) => s + (l.loom === "fans" ? startingCurrentA(l.lead.load) : 0), 0);
      if (on.limitA !== undefined && on.currentA > on.limitA + 1e-9) {
        return [
          finding(
            "root-current",
            "stop",
            `${on.name} carries ${amps(on.currentA)} of ${amps(on.limitA)} (${tags}). It shuts down or burns out. Move some to another header, or use a powered hub.`,
            ends,
            plan,
          ),
        ];
      }
      if (on.limitStartA !== undefined && startA > on.limitStartA + 1e-9) {
        return [
          finding(
            "root-current",
            "warn",
            `${on.name} carries ${amps(startA)} of ${amps(on.limitStartA)} while the fans start (${tags}). Spread them.`,
            ends,
            plan,
          ),
        ];
      }
      if (on.limitLeds !== undefined && on.leds > on.limitLeds) {
        return [
          finding(
            "root-current",
            "stop",
            `${on.name} carries ${on.leds} LEDs of ${on.limitLeds}. Colours fade at the far end. Use a powered hub.`,
            ends,
            plan,
          ),
        ];
      }
      return [];
    });
  },
};
