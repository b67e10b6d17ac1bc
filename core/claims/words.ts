import type { Address, Graph } from "../assembly";
import { partIdOf } from "../assembly";
import { family } from "../catalogue";
import { schoolWords } from "../schools";
import { amps } from "../wiring";
import { a, list, upper } from "../words";
import type { Claim, Hindrance } from "./claim";

const watts = (w: number) => `${Math.round(w)} W`;
/** More than so many are counted, not named. */
const MOST_NAMED = 4;
const some = (names: readonly string[]) => list(names, names.length <= MOST_NAMED ? MOST_NAMED : MOST_NAMED - 1);

const tag = (graph: Graph, a: Address) => graph.leads.get(a)?.tag ?? a;
const portName = (graph: Graph, a: Address) => graph.ports.get(a)?.name ?? a;
const partName = (graph: Graph, id: string) => {
  const p = graph.parts.get(id);
  return p?.part.label ?? p?.type.name ?? id;
};
const rootName = (graph: Graph, id: string) => graph.ports.get(id)?.name ?? partName(graph, id);
const tags = (graph: Graph, list: readonly Address[]) => some([...list.map((a) => tag(graph, a))].sort());
const ports = (graph: Graph, list: readonly Address[]) => some(list.map((a) => portName(graph, a)));

const NOTHING_OF_IT = { header: "the board has no header for that", hub: "no powered hub of this build has a port for it" };

const PLACE: Record<string, string> = {
  front: "the front",
  top: "the top",
  rear: "the rear",
  bottom: "the bottom",
  side: "the side",
  cpu: "the CPU",
  radiator: "the radiator",
  pump: "the pump",
  case: "the case",
};
/** A zone in words; what the technician called it stays as it is. */
export const placeWords = (zone: string): string => PLACE[zone] ?? zone;

/** A radiator among several is known by its cooler. */
const zoneWords = (graph: Graph, zone: string): string =>
  zone.startsWith("radiator:") ? partName(graph, zone.slice("radiator:".length)) : placeWords(zone);

/** A claim in words: the same fact reads the same on screen, paper and command line. */
export function say(graph: Graph, c: Claim): string {
  switch (c.kind) {
    case "fixed":
      return "Fixed here by hand.";
    case "by-hand":
      return "Placed by hand.";
    case "fits":
      return `${upper(a(family(graph.ports.get(c.port)?.port.family ?? "").name))} that it fits.`;
    case "shares":
      return `Shares ${rootName(graph, c.root)} with ${tags(graph, c.with)}${c.zone === undefined ? "" : `: all cool ${zoneWords(graph, c.zone)}`}.`;
    case "current":
      return `${amps(c.a)} of ${amps(c.ofA)}.`;
    case "leds":
      return c.of === undefined ? `${c.leds} LEDs.` : `${c.leds} LEDs of ${c.of}.`;
    case "counted-by-leds":
      return `Its data gives no current: ${c.leds} LEDs counted at 60 mA each, ${amps(c.a)}.`;
    case "school-kept": {
      const l = graph.leads.get(c.lead);
      return l ? `${upper(schoolWords(graph.build.policy, l))}.` : "";
    }
    case "school-left": {
      const l = graph.leads.get(c.lead);
      const way = l ? schoolWords(graph.build.policy, l) : "";
      const there = c.at === undefined ? "no header commands it here" : `here ${portName(graph, c.at)} commands it`;
      const why = c.others.map((o) => `${portName(graph, o.port)} ${hinder(graph, o.because)}`);
      return `Not the shop's way (${way}): ${there}${c.asks && c.there === 0 ? `; ${NOTHING_OF_IT[c.asks]}` : why.length > 0 ? `; ${some(why)}` : ""}.`;
    }
    case "signal-only":
      return `Only the ${c.what} signal comes from here; the current comes through the hub's own plug.`;
    case "button":
      return "The board sets the lights: hold the hub's button until they follow it (common practice).";
    case "low-noise":
      return "Its low-noise lead, a resistor, goes between: quieter and less air at any setting.";
    case "full-speed":
      return "Its speed cannot be set there: it runs at full speed.";
    case "run":
      return `Run ${c.needMm} mm of ${c.hasMm} mm.`;
    case "halves":
      return c.halves === 2 ? "Both halves of the header." : "One half of the header.";
    case "only-kind":
      return "The only port of the build that this plug goes into.";
    case "pins":
      return `${c.pins.length > 1 ? "Pins" : "Pin"} ${list(c.pins.map(String))}: ${c.signals.join(", ")}. ${c.polarity ? "Polarity matters." : "Either way round works."}`;
    case "outlet":
      return `Outlet of the same system (${c.system}). ${partName(graph, partIdOf(c.lead))} leaves the bag to feed ${ports(graph, c.feeds)}.`;
    case "cable-load":
      return c.ofW === undefined ? `${watts(c.w)} on this cable.` : `${watts(c.w)} of ${watts(c.ofW)} on this cable.`;
    case "one-cable":
      return `One cable for ${ports(graph, c.feeds)}.`;
    case "cpu-power":
      return `The CPU draws ${watts(c.drawW)} at most; eight contacts carry ${watts(c.plugW)}, so ${c.needed} ${c.needed === 1 ? "socket is" : "sockets are"} asked for.`;
    case "card-power":
      return `${watts(c.w)} through this socket.`;
    case "doubled":
      return c.within
        ? `Two plugs of one cable: all that the card draws through its cables (${watts(c.wholeW)}) stays within its ${watts(c.limitW)}.`
        : `Two plugs of one cable, though the card may draw ${watts(c.wholeW)} through its cables and the cable is good for ${watts(c.limitW)}: the bag has no other.`;
    case "adapter":
      return `${c.extends ? "Extension to" : "Adapter for"} ${portName(graph, c.port)}: ${watts(c.w)}.`;
    case "main-plug":
      return "The board's main plug.";
    case "slot-fastest":
      return `${c.first ? "No slot of the build is faster for it" : "No faster slot is open to it"}${c.off.length > 0 ? `; it switches ${list(c.off)} off` : ""}.`;
    case "slot-speed":
      return `It carries ${c.carriesMBs} MB/s; the drive reads ${c.readsMBs} MB/s at most.`;
    case "boots":
      return "The system starts from this drive.";
    case "heatsink":
      return "A heatsink lies on it.";
    case "lanes":
      return `${c.lanes} of the ${c.wants} lanes that it asks for${c.sharedWith.length > 0 ? `; ${ports(graph, c.sharedWith)} ${c.sharedWith.length === 1 ? "shares" : "share"} them` : ""}.`;
    case "first-card":
      return "The card that gives the picture goes first.";
    case "board-order":
      return `The board's own order for ${c.modules} ${c.modules === 1 ? "module" : "modules"}.`;
    case "cpu-socket":
      return "The board's CPU socket.";
    case "data-port":
      return `A data port of its own: ${portName(graph, c.port)}. No filled slot switches it off.`;
    case "no-port":
      return `Nothing in this build has a port for it (${kindWords(graph, c.lead)}).`;
    case "own-control": {
      const l = graph.leads.get(c.lead);
      const by = l?.lead.ownControl ?? "button";
      return `${partName(graph, l?.part.id ?? "")} runs by its own ${by}${by === "button" ? ": press for the next mode, hold to give it to the board" : ""} (common practice).`;
    }
    case "spare":
      return "Not needed: keep it in the bag.";
    case "no-pins":
      return `${portName(graph, c.block)} has no pins for it.`;
    case "middle-blank":
      return `A ${graph.leads.get(c.lead)?.lead.positions?.length ?? 3}-position plug with the middle blank does not fit pins that stand side by side. Two single leads or an adapter do.`;
    case "hindered":
      return hindered(graph, c);
    case "room":
      return c.planned
        ? `Plan again: ${roomName(graph, c.port)} has room for it now.`
        : `Not planned yet: ${roomName(graph, c.port)} has room for it.`;
    case "cpu-enough":
      return `Optional here: the CPU draws ${watts(c.drawW)} and ${c.filled === 1 ? "the plug that is in carries" : `the ${c.filled} plugs that are in carry`} ${watts(c.carriesW)}. It matters for overclocking.`;
    case "cpu-short":
      return `The CPU draws ${watts(c.drawW)}; what is plugged carries ${watts(c.carriesW)}.`;
    case "no-plug":
      return `No cable of this build has a plug for it (${family(graph.ports.get(c.socket)?.port.family ?? "sata-power").name}).${brings(graph, c.socket)}`;
    case "weak-plugs":
      return `It takes ${watts(c.w)}; the strongest plug that fits carries ${watts(c.strongestW)}.`;
    case "plugs-short":
      return `No plug reaches it: ${c.missingMm} mm are missing.`;
    case "plugs-in-use":
      return `${c.plugs === 1 ? "The one plug that reaches it is" : `All ${c.plugs} plugs that reach it are`} in use or tethered elsewhere.${brings(graph, c.socket)}`;
    case "cables-full":
      return `With its ${watts(c.w)} ${c.cables.map((x) => `${partName(graph, x.cable)} would carry ${watts(x.w)} of ${watts(x.ofW)}`).join(", ")}.`;
    case "no-outlet":
      return `Every outlet of the supply for such a cable (${list(c.systems)}) is taken.`;
    case "data-ports-gone":
      return c.off.length === 0
        ? `All ${c.taken.length} data ports are taken.`
        : `${c.taken.length} data ${c.taken.length === 1 ? "port is" : "ports are"} taken, and ${list(c.off.map((o) => `${portName(graph, o.by)} switches ${portName(graph, o.port)} off`))}.`;
    case "no-data-cable":
      return c.used === 0
        ? "No data cable came with the parts: what is missing is on the order list."
        : `${c.used === 1 ? "The one data cable that came" : c.used === 2 ? "Both data cables that came" : `All ${c.used} data cables that came`} with the parts ${c.used === 1 ? "is" : "are"} used: what is missing is on the order list.`;
    case "data-cable-short":
      return `No data cable reaches an open port: ${c.missingMm} mm are missing.`;
    case "unknown":
      return c.planned ? "Plan again: the parts have changed." : "Not planned yet.";
  }
}

/** Several claims, one after the other. */
export const sayAll = (graph: Graph, claims: readonly Claim[]): string =>
  claims
    .map((c) => say(graph, c))
    .filter(Boolean)
    .join(" ");

const roomName = (graph: Graph, a: Address): string => (graph.ports.has(a) ? portName(graph, a) : `${graph.leads.get(a)?.name ?? a}`);

function kindWords(graph: Graph, lead: Address): string {
  const l = graph.leads.get(lead);
  return l ? `${family(l.lead.family).name}${l.lead.key ? `, ${l.lead.key}` : ""}` : lead;
}

/** One reason out of many: what all ports share, else the port that is nearest to taking it. */
function hindered(graph: Graph, c: Extract<Claim, { kind: "hindered" }>): string {
  const kinds = new Set(c.ports.map((p) => p.because.kind));
  const n = c.ports.length;
  if (kinds.size === 1 && kinds.has("taken"))
    return n === 1 ? `${ports(graph, [c.ports[0]?.port ?? ""])}, the only port for it, is taken.` : `All ${n} ports for it are taken.`;
  if (kinds.size === 1 && kinds.has("reach")) {
    const best = nearest(c.ports);
    return n === 1
      ? `Too short for ${portName(graph, best.port)} by ${best.because.missingMm} mm.`
      : `Too short for all ${n} ports: by ${best.because.missingMm} mm for the nearest, ${portName(graph, best.port)}.`;
  }
  const count = (k: Hindrance["kind"]) => c.ports.filter((p) => p.because.kind === k).length;
  const taken = count("taken");
  const others = c.ports.filter((p) => p.because.kind !== "taken");
  const told = [
    ...(taken > 0 ? [`${taken} of the ${n} ports for it ${taken === 1 ? "is" : "are"} taken`] : []),
    ...others.map((p) => `${portName(graph, p.port)} ${hinder(graph, p.because)}`),
  ];
  return `${upper(some(told))}.`;
}

const nearest = (list: Extract<Claim, { kind: "hindered" }>["ports"]) => {
  const far = list.flatMap((p) => (p.because.kind === "reach" ? [{ port: p.port, because: p.because }] : []));
  return far.reduce((a, b) => (b.because.missingMm < a.because.missingMm ? b : a));
};

/** What keeps a lead out of a port, as a clause about the port. */
function hinder(graph: Graph, h: Hindrance): string {
  switch (h.kind) {
    case "taken":
      return `is taken (${tags(graph, h.by)})`;
    case "reach":
      return `is ${h.missingMm} mm too far`;
    case "over":
      return `would carry ${amps(h.a)} of ${amps(h.ofA)}`;
    case "over-start":
      return `would carry ${amps(h.a)} of ${amps(h.ofA)} while fans start`;
    case "leds":
      return `would carry ${h.leds} LEDs of ${h.of}`;
    case "pump":
      return h.with.length > 0 ? `would join a pump with other leads (${tags(graph, h.with)})` : "is no place for a pump";
    case "own-kind":
      return "takes its own kind only";
    case "own-part":
      return "would feed or command itself";
    case "ring":
      return "is in a ring that nothing feeds";
    case "cooler":
      return "takes the cooler's own radiator fans only";
    case "dead":
      return `gives nothing while ${graph.leads.has(h.lead) ? tag(graph, h.lead) : portName(graph, h.lead)} is not plugged`;
    case "off":
      return `is switched off by ${portName(graph, h.by)}`;
    case "switches-off":
      return `would switch ${ports(graph, h.ports)} off, which ${h.ports.length === 1 ? "is" : "are"} in use`;
    case "protocol":
      return "speaks another protocol";
    case "lanes":
      return h.lanes === 0 ? "has no lanes left" : `has ${h.lanes} ${h.lanes === 1 ? "lane" : "lanes"}, too few`;
  }
}

/** What to order for a socket that no free plug feeds (common practice). */
function brings(graph: Graph, socket: string): string {
  const p = graph.ports.get(socket)?.port;
  if (p?.family === "sata-power") return " To order: a Y-lead for drives, one SATA power socket to two plugs.";
  if (p?.role === "graphics-power") return " To order: one more cable made for this very supply, or a supply that has it.";
  return "";
}
