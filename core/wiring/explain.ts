import { type Address, byText, type Connection, type Graph, type LeadNode, type PortNode, runLengthMm, zoneOf } from "../assembly";
import { boardHas, hungOn, panelPinout } from "../brings";
import { controlLost, family, headerLimit, mate, usable } from "../catalogue";
import { cableLimitW, cpuDrawW, cpuSocketsNeeded, cpuSocketW, portDrawW } from "../power";
import { bootDrive, slotMBs } from "./data";
import { needOf, needOfSocket } from "./needs";
import { schoolWords } from "./school";

export const amps = (a: number) => `${Number(a.toFixed(2))} A`;
const watts = (w: number) => `${Math.round(w)} W`;
const list = (names: readonly string[]) => {
  if (names.length < 2) return names[0] ?? "";
  return `${names.slice(0, -1).join(", ")} and ${names.at(-1)}`;
};

/** A fan's lead that is plugged with the resistor between that came with the fan. */
export const throughLowNoise = (l: LeadNode): boolean => l.part.part.lowNoise === true && l.loom === "fans" && l.lead.flow === "in";

/** Why a connection is where it is, with the numbers that decided. */
export function whyHere(graph: Graph, c: Connection): string {
  const l = graph.leads.get(c.lead);
  const p = graph.ports.get(c.port);
  if (!l || !p) return "";
  if (l.lead.role === "cable-root")
    return `Outlet of the same system (${l.lead.key}). ${l.part.part.label ?? l.part.type.name} leaves the bag to feed ${list(fedBy(graph, l.part.id))}.`;
  if (l.lead.flow === "out" && family(l.lead.family).loom === "power") return whyPower(graph, l, p);
  switch (l.lead.family) {
    case "panel-loose": {
      const pins = (c.place ?? []).filter((_, i) => l.lead.positions?.[i] !== "blank");
      const signals = panelPinout(p.port);
      return `${pins.length > 1 ? "Pins" : "Pin"} ${pins.join(" and ")}: ${pins.map((n) => signals.get(n) ?? "").join(", ")}. ${l.lead.positions?.some((s) => s.endsWith("+")) ? "Polarity matters." : "Either way round works."}`;
    }
    case "sata-data":
      return `Nearest open port that no filled slot switches off.`;
    case "m2":
      return whySlot(graph, l, p);
    case "memory-slot":
      return "The board's own order for this number of modules.";
    case "cpu-socket":
      return `The board has one CPU socket, ${l.lead.key ?? "unmarked"}.`;
    case "pcie-slot":
      return "The first slot has the most lanes.";
    default:
  }
  if (["usb3-20", "usbc-20", "hd-audio", "panel-block"].includes(l.lead.family)) {
    return `The only kind of port this plug goes into. Run ${Math.round(runLengthMm(l.origin, p.at, graph.cutouts, graph.boardRect))} mm of ${l.lead.lengthMm} mm.`;
  }
  return whyNet(graph, l, p);
}

function whySlot(graph: Graph, l: LeadNode, p: PortNode): string {
  const mbs = slotMBs(p.port, l.lead.protocol);
  const reads = l.part.type.ratings.readMBs;
  return [
    ...(bootDrive(graph) === l.part ? ["The system starts from this drive."] : []),
    `${p.port.rank === 0 ? "The board's fastest slot" : "The fastest slot that faster drives leave"}${p.port.displaces.length > 0 ? `; it switches ${list(p.port.displaces)} off` : ""}.`,
    ...(mbs !== undefined && reads !== undefined ? [`It carries ${Math.floor(mbs)} MB/s; the drive reads ${reads} MB/s at most.`] : []),
    ...(p.port.heatsink ? ["A heatsink lies on it."] : []),
  ].join(" ");
}

function whyNet(graph: Graph, l: LeadNode, p: PortNode): string {
  const on = hungOn(graph, p);
  if (!on) return "";
  const mates = on.leads.filter((x) => x.address !== l.address);
  const parts: string[] = [];
  if (mates.length > 0 && l.lead.role !== "hub-control") {
    const zone = zoneOf(graph, l);
    const same = mates.filter((m) => zoneOf(graph, m) === zone);
    parts.push(
      `Shares ${on.name} with ${list(mates.map((m) => m.tag).sort(byText))}${same.length === mates.length && family(l.lead.family).loom === "fans" ? `: all cool one place (${zone})` : ""}.`,
    );
  }
  if (on.limitA !== undefined && on.currentA > 0 && family(l.lead.family).loom !== "front-panel")
    parts.push(`${amps(on.currentA)} of ${amps(on.limitA)}.`);
  if (on.leds > 0) parts.push(on.limitLeds === undefined ? `${on.leds} LEDs.` : `${on.leds} LEDs of ${on.limitLeds}.`);
  const words = schoolWords(graph.build.policy, l);
  if (words) parts.push(`${words.charAt(0).toUpperCase()}${words.slice(1)}.`);
  if (l.lead.role === "hub-control" || l.lead.role === "light-control")
    parts.push(
      `Only the ${l.lead.role === "hub-control" ? "speed" : "colour"} signal comes from here; the current comes through the hub's own plug.`,
    );
  if (l.lead.ownControl === "button") parts.push("The board sets the lights: hold the hub's button until they follow it (common practice).");
  if (throughLowNoise(l)) parts.push("Its low-noise lead, a resistor, goes between: quieter and less air at any setting.");
  if (controlLost(l.lead, on.root.port)) parts.push("Its speed cannot be set there: it runs at full speed.");
  if (l.lead.family === "usb2")
    parts.push(
      `${l.lead.usbPorts === 2 ? "Both halves" : "One half"} of the header, ${Math.round(runLengthMm(l.origin, p.at, graph.cutouts, graph.boardRect))} mm of ${l.lead.lengthMm} mm.`,
    );
  return (
    parts.join(" ") ||
    `Nearest port that fits: ${Math.round(runLengthMm(l.origin, p.at, graph.cutouts, graph.boardRect))} mm of ${l.lead.lengthMm} mm.`
  );
}

const fedBy = (graph: Graph, partId: string) =>
  graph.connections.filter((c) => c.lead.startsWith(`${partId}:`) && !c.lead.includes(":root-")).map((c) => graph.ports.get(c.port)?.name ?? c.port);

function whyPower(graph: Graph, l: LeadNode, p: PortNode): string {
  const cable = l.part.cable;
  const own = portDrawW(graph, p);
  if (!cable) return `Adapter for ${p.name}: ${watts(own)}.`;
  const all = graph.connections.filter((c) => c.lead.startsWith(`${l.part.id}:`) && !c.lead.includes(":root-"));
  const sum = all.reduce((s, c) => s + (graph.ports.get(c.port) ? portDrawW(graph, graph.ports.get(c.port) as PortNode) : 0), 0);
  const limitW = cableLimitW(cable.cable.ends, cable.cable.limit);
  const load = Number.isFinite(limitW) ? `${watts(sum)} of ${watts(limitW)} on this cable.` : sum > 0 ? `${watts(sum)} on this cable.` : "";
  if (p.port.role === "cpu-power") {
    const need = cpuSocketsNeeded(graph).length;
    return `The CPU draws ${watts(cpuDrawW(graph))} at most; one plug carries ${watts(graph.build.policy.cpuPlugW)}, so ${need} ${need === 1 ? "is" : "are"} needed. ${load}`.trim();
  }
  if (p.port.role === "graphics-power") {
    const same = all.filter((c) => graph.ports.get(c.port)?.part === p.part).length;
    return `${watts(own)} through this socket. ${load}${same > 1 ? " Both plugs of one cable: the card stays within its limit." : ""}`.trim();
  }
  if (p.port.role === "board-power") return "The board's main plug.";
  return `${all.length > 1 ? `One cable for ${list(fedBy(graph, l.part.id))}.` : "Within reach of this cable."} ${load}`.trim();
}

/** Why a lead has no port. `graph` is the plan as it stands. */
export function whyFree(graph: Graph, l: LeadNode): string {
  const fits = [...graph.ports.values()].filter(
    (p) => p.port.flow === "out" && p.part !== l.part && usable(mate(l.lead.family, p.port.family, l.lead.key, p.port.key)),
  );
  const kind = family(l.lead.family).name;
  if (l.lead.ownControl)
    return `${l.part.part.label ?? l.part.type.name} runs by its own ${l.lead.ownControl}${l.lead.ownControl === "button" ? ": press for the next mode, hold to give it to the board" : ""} (common practice).`;
  if (l.lead.role === "splitter-in") return "Not needed: every lead has a place without it. Keep it in the bag.";
  if (fits.length === 0) return `Nothing in this build has a port for it (${kind}${l.lead.key ? `, ${l.lead.key}` : ""}).`;
  if (l.lead.family === "panel-loose") {
    const block = fits[0];
    if (block && !boardHas(l.lead, block.port)) return `${block.name} has no pins for it.`;
    if (l.lead.positions?.includes("blank"))
      return `A ${l.lead.positions.length}-position plug with the middle blank does not fit pins that stand side by side. Two single leads or an adapter do.`;
    return "Its pins are taken.";
  }
  const reach = fits.filter((p) => runLengthMm(l.origin, p.at, graph.cutouts, graph.boardRect) <= l.lead.lengthMm);
  if (reach.length === 0) {
    const missing = Math.min(...fits.map((p) => runLengthMm(l.origin, p.at, graph.cutouts, graph.boardRect))) - l.lead.lengthMm;
    return `Too short by ${Math.ceil(missing)} mm. An extension does it.`;
  }
  const open = reach.filter((p) => (graph.atPort.get(p.address)?.length ?? 0) === 0);
  const limited =
    open.length > 0 &&
    l.lead.load.currentA > 0 &&
    open.every((p) => (headerLimit(p.port).currentA ?? Number.POSITIVE_INFINITY) < l.lead.load.currentA);
  if (limited) return `It takes ${amps(l.lead.load.currentA)}, more than any open port gives. A powered hub does it.`;
  const places = reach.length;
  const rivals = [...graph.leads.values()].filter(
    (x) => x.lead.family === l.lead.family && x.lead.flow === "in" && x.lead.role !== "splitter-in",
  ).length;
  return open.length === 0
    ? `${rivals} ${rivals === 1 ? "lead" : "leads"} of this kind, ${places} ${places === 1 ? "place" : "places"}. A splitter or a hub does it.`
    : "The current or LED limit of what is still open would be passed. A powered hub does it.";
}

/** Why a power or data socket of a part stays empty. */
export function whyEmpty(graph: Graph, p: PortNode): string {
  if (p.port.role === "cpu-power") {
    const need = cpuSocketsNeeded(graph).length;
    const connected = [...graph.ports.values()].filter(
      (q) => q.port.role === "cpu-power" && q.port.flow === "in" && graph.atPort.get(q.address)?.length,
    ).length;
    if (connected >= need)
      return `Optional here: the CPU draws ${watts(cpuDrawW(graph))} and ${need === 1 ? "one plug carries" : `${need} plugs carry`} ${watts(cpuSocketsNeeded(graph).reduce((s, q) => s + cpuSocketW(graph, q.port.family), 0))}. It matters for overclocking.`;
  }
  if (p.part.type.kind === "adapter") return "Not needed: the adapter stays in the bag.";
  if (p.port.family === "sata-data") {
    const cables = [...graph.parts.values()].filter((x) => x.cable && x.type.leads.every((l) => l.family === "sata-data"));
    const open = [...graph.ports.values()].filter(
      (q) => q.port.family === "sata-data" && q.port.flow === "out" && !graph.atPort.get(q.address)?.length,
    );
    if (open.length === 0) return "Every SATA port of the board is taken or switched off by a filled slot.";
    return cables.length === 0 || cables.every((x) => x.type.leads.some((l) => graph.ofLead.has(`${x.id}:${l.id}`)))
      ? "No SATA data cable is left. Add one."
      : "No data cable reaches it.";
  }
  const plugs = [...graph.leads.values()].filter((l) => l.lead.flow === "out" && usable(mate(l.lead.family, p.port.family)));
  if (plugs.length === 0) return `No cable of this supply has a plug for it (${family(p.port.family).name}).`;
  const strong = plugs.filter(
    (l) => (l.lead.limit?.powerW ?? family(l.lead.family).rating?.powerW ?? Number.POSITIVE_INFINITY) >= portDrawW(graph, p),
  );
  if (strong.length === 0) return `It takes ${watts(portDrawW(graph, p))}, more than any plug of this supply may carry.`;
  const reach = strong.filter((l) => runLengthMm(l.origin, p.at, graph.cutouts, graph.boardRect) <= l.lead.lengthMm + p.port.tailMm);
  if (reach.length === 0)
    return `No plug reaches it: ${Math.ceil(Math.min(...strong.map((l) => runLengthMm(l.origin, p.at, graph.cutouts, graph.boardRect) - l.lead.lengthMm - p.port.tailMm)))} mm are missing.`;
  return "All plugs that reach it are in use, or their cables would pass their watts.";
}

/** Everything that stays free, with its reason. */
export interface Free {
  end: Address;
  what: string;
  need: "mandatory" | "wanted" | "optional";
  reason: string;
}

export function freeEnds(graph: Graph): Free[] {
  const out: Free[] = [];
  for (const l of graph.leads.values()) {
    if (l.lead.flow !== "in" || l.lead.role === "cable-root" || graph.ofLead.has(l.address)) continue;
    out.push({ end: l.address, what: l.name, need: needOf(graph, l), reason: whyFree(graph, l) });
  }
  for (const p of graph.ports.values()) {
    if (p.port.flow !== "in" || graph.atPort.get(p.address)?.length) continue;
    out.push({
      end: p.address,
      what: p.name,
      need: needOfSocket(graph, p),
      reason: whyEmpty(graph, p),
    });
  }
  return out;
}
