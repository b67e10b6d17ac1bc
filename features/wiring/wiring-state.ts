import type { LoomName } from "../../ui/loom";

/** What the hand holds on the wiring screen: one thing at a time. */
export type Hand =
  | { at: "nothing" }
  | { at: "port"; port: string }
  | { at: "lead"; lead: string }
  /** A lead is taken, to be put somewhere; at `aim`, if it was taken for that port. */
  | { at: "taking"; lead: string; aim?: string };

export const ZOOM_NAMES = ["whole", "region", "port"] as const;

export interface WiringState {
  hand: Hand;
  loom: LoomName | null;
  zoom: 0 | 1 | 2;
  region: string | null;
  /** The side of the tray that is drawn large. */
  sheet: "front" | "behind";
}

export type WiringDoing =
  | { do: "choose lead"; lead: string }
  | { do: "choose port"; port: string }
  | { do: "take"; lead: string; aim?: string }
  | { do: "let go" }
  /** What was taken is put down: the lead stays chosen. */
  | { do: "put down" }
  | { do: "loom"; loom: LoomName | null }
  | { do: "zoom"; to: number }
  | { do: "region"; region: string }
  | { do: "turn" }
  /** As an address has it. */
  | { do: "come back"; to: WiringState };

export const STILL: WiringState = { hand: { at: "nothing" }, loom: null, zoom: 0, region: null, sheet: "front" };

const zoomOf = (n: number) => Math.min(2, Math.max(0, Math.round(n))) as WiringState["zoom"];

/** The state after something was done. Whatever is chosen, the region that was asked for before is let go. */
export function wiringAfter(s: WiringState, d: WiringDoing): WiringState {
  switch (d.do) {
    case "choose lead":
      return { ...s, hand: { at: "lead", lead: d.lead }, region: null };
    case "choose port":
      return { ...s, hand: { at: "port", port: d.port }, region: null };
    case "take":
      return { ...s, hand: { at: "taking", lead: d.lead, ...(d.aim ? { aim: d.aim } : {}) } };
    case "put down":
      return s.hand.at === "taking" ? { ...s, hand: { at: "lead", lead: s.hand.lead } } : s;
    case "let go":
      return s.hand.at === "taking" ? { ...s, hand: { at: "lead", lead: s.hand.lead } } : { ...s, hand: { at: "nothing" }, region: null };
    case "come back":
      return d.to;
    case "loom":
      return { ...s, loom: d.loom };
    case "zoom":
      return { ...s, zoom: zoomOf(d.to) };
    case "turn":
      return { ...s, sheet: s.sheet === "front" ? "behind" : "front", region: null };
    case "region":
      return { ...s, region: d.region, zoom: zoomOf(Math.max(1, s.zoom)) };
  }
}

/** What of the state stands in the address: what is chosen, the loom, the zoom. What is taken is not: a link plugs nothing. */
export function toAddress(s: WiringState): string {
  const q = new URLSearchParams();
  if (s.hand.at === "port") q.set("port", s.hand.port);
  if (s.hand.at === "lead" || s.hand.at === "taking") q.set("lead", s.hand.lead);
  if (s.loom) q.set("loom", s.loom);
  if (s.sheet === "behind") q.set("sheet", "behind");
  if (s.zoom > 0) q.set("zoom", ZOOM_NAMES[s.zoom] ?? "whole");
  return q.toString();
}

/** The state that an address names; what it names and is not there is left out. */
export function fromAddress(
  q: { get: (name: string) => string | null },
  there: { lead: (address: string) => boolean; port: (address: string) => boolean; looms: readonly string[] },
): WiringState {
  const [lead, port, loom] = [q.get("lead"), q.get("port"), q.get("loom")];
  const zoom = ZOOM_NAMES.indexOf((q.get("zoom") ?? "whole") as (typeof ZOOM_NAMES)[number]);
  return {
    hand: lead && there.lead(lead) ? { at: "lead", lead } : port && there.port(port) ? { at: "port", port } : { at: "nothing" },
    loom: loom && there.looms.includes(loom) ? (loom as LoomName) : null,
    zoom: zoomOf(Math.max(0, zoom)),
    region: null,
    sheet: q.get("sheet") === "behind" ? "behind" : "front",
  };
}
