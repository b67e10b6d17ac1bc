import type { Address, Graph, TypeLookup } from "../assembly";
import { family } from "../catalogue";
import { amps } from "./words";

/** One thing that would have to be otherwise for a free end to find its place. Lengths in mm, `over` in mA or LEDs. */
export type Loosening =
  | { kind: "accessory"; type: string; count: number }
  | { kind: "cable"; owner: string; cable: string; count: number }
  | { kind: "longer"; end: Address; mm: number }
  | { kind: "limit"; root: Address; of: "mA" | "startMA" | "leds"; over: number }
  | { kind: "place"; root: Address; family: string; count: number }
  | { kind: "release"; lead: Address };

/** The fewest things that would have to be otherwise for what stays free to find its place. */
export interface Ways {
  /** Ends that find their place then. */
  lets: Address[];
  /** All of it together is needed. */
  needs: Loosening[];
  /** Ends that nothing of the kind lets in. */
  left: Address[];
  /** No smaller set does as much. */
  proved: boolean;
}

/** Extensions are sold from 100 mm on, in steps of 50 (common practice). */
const sold = (missingMm: number): number => Math.max(100, Math.ceil(missingMm / 50) * 50);

/** One of the things in words, as a technician would say it. */
export function wayWords(graph: Graph, types: TypeLookup, way: Loosening): string {
  const root = "root" in way ? graph.ports.get(way.root) : undefined;
  switch (way.kind) {
    case "accessory":
      return `${way.count} more ${types(way.type)?.name ?? way.type}`;
    case "cable": {
      const owner = graph.parts.get(way.owner);
      const cable = owner?.type.cables.find((c) => c.id === way.cable);
      const label = cable?.label ?? way.cable;
      const name = /cable|string|lead$/i.test(label) ? label : `${label} cable`;
      // Data cables go with anything; those of a supply belong to it alone.
      const whose = cable?.ends.every((e) => e.family === "sata-data") ? "" : `, made for ${owner?.part.label ?? owner?.type.name ?? way.owner}`;
      return `${way.count} more ${name}${way.count === 1 ? "" : "s"}${whose}`;
    }
    case "longer": {
      const lead = graph.leads.get(way.end);
      const port = graph.ports.get(way.end);
      return lead
        ? `an extension of ${sold(way.mm)} mm or more for ${lead.tag} (${lead.name})`
        : `a plug that reaches ${port?.name ?? way.end}: ${way.mm} mm are missing`;
    }
    case "limit":
      return way.of === "leds"
        ? `${way.over} LEDs more on ${root?.name ?? way.root} than it drives`
        : `${amps(way.over / 1000)} more ${way.of === "startMA" ? "at the start " : ""}on ${root?.name ?? way.root} than it gives`;
    case "place":
      return `${way.count} more ${way.count === 1 ? "place" : "places"} on ${root?.name ?? way.root} for ${family(way.family).name}, by a ${
        way.family === "usb2" ? "hub" : "splitter"
      } that the shelf does not have`;
    case "release":
      return `${graph.leads.get(way.lead)?.tag ?? way.lead} let go of where it was fixed`;
  }
}
