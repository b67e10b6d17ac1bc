import { boardPorts, cpuCoolers, isOnRadiator, type PartNode, partsOfKind, portNodes } from "../../assembly";
import { panelPinout } from "../../brings";
import { isLiquid } from "../../catalogue";
import { firmwareBehind } from "../../wiring";
import type { Rig } from "../model";
import { CAUTION, LOW_COOLER_MM, minutesOf, SCREWS, TEST_FANS_FROM } from "../practice";
import { BOARD_IN, inPlace, list, mountId, nameOf, plural, type Site } from "./site";

type Mounting = NonNullable<PartNode["type"]["body"]["mountings"]>[number];

/** How this cooler is fitted to the socket that is there; undefined where its entry does not say. */
export function mountingOf(site: Site, cooler: PartNode): Mounting | undefined {
  const socket = boardPorts(site.graph, "cpu")[0]?.port.key;
  return cooler.type.body.mountings?.find((m) => m.socket === socket);
}

const mountingWords = (m: Mounting | undefined): string =>
  m
    ? ` Bracket ${m.bracket}${m.position ? `, ${m.position}` : ""}${m.spacers ? `, spacers ${m.spacers}` : ""}.${m.turns ? ` It goes on turned by ${list(m.turns.map((t) => `${t}°`)).replace(/ and /, " or ")}.` : ""}`
    : " Take the bracket for this socket out of its box: the wrong one costs taking it off again.";

export const pasteWords = (cooler: PartNode): string =>
  cooler.part.reused
    ? "It was used before: clean plate and CPU, then a pea of new paste in the middle."
    : cooler.type.ratings.pasteApplied
      ? "Paste is on the plate. Do not touch it."
      : "A pea of paste in the middle of the CPU.";

export const coolerWords = (site: Site, cooler: PartNode): string => `${pasteWords(cooler)}${mountingWords(mountingOf(site, cooler))}`;

/** Is an air cooler fitted before the board goes into the case? */
function beforeBoard(site: Site, cooler: PartNode, backplate: boolean): boolean {
  if (site.policy.coolerFirst !== "derived") return site.policy.coolerFirst === "before";
  // Off again after a bench test it would cost new paste.
  if (site.policy.benchTest === "first") return true;
  return (cooler.type.body.heightMm ?? 0) <= LOW_COOLER_MM || (backplate && site.shell?.type.body.socketCutout === false);
}

/** On the table there is room on both sides of the board; through a cut-out in the tray it can also be done later. */
function backplate(site: Site, cooler: PartNode, liquid: boolean): void {
  const { add, edge } = site;
  const id = `backplate:${cooler.id}`;
  const cutout = site.shell?.type.body.socketCutout === true;
  const later = cutout && site.policy.coolerFirst === "after";
  const onIt = liquid ? `head:${cooler.id}` : mountId(cooler.id);
  add({
    id,
    kind: "assemble",
    measure: "backplate",
    title: `Put the backplate of ${nameOf(cooler)} behind the board`,
    detail: `It may hang loose until the ${liquid ? "head" : "cooler"} is on.${mountingWords(mountingOf(site, cooler))}`,
    rightWhen: "Its four posts stand through the board",
    postures: later ? ["behind-up"] : [],
    stage: later ? 320 : 40,
    where: { at: later ? "cooler" : "table" },
    parts: [cooler.id],
    mootOnce: [onIt],
  });
  edge("needs", id, onIt, "its screws go into the backplate");
  if (later) edge("needs", BOARD_IN, id, "it goes through the opening of the tray");
  else if (cutout) edge("school", id, BOARD_IN, "on the table there is room on both sides of the board");
  else edge("covers", id, BOARD_IN, "nobody gets behind the board once it lies on the tray");
}

/** What is put together and tried while everything lies on the table. */
export function tableSteps(site: Site): void {
  const { graph, board, add, edge } = site;
  if (!board) return;
  const cpu = partsOfKind(graph, "cpu").map((p) => inPlace(p));
  for (const cooler of cpuCoolers(graph)) {
    const liquid = isLiquid(cooler.type);
    const own = mountingOf(site, cooler)?.backplate === "own";
    if (own) backplate(site, cooler, liquid);
    if (liquid) continue;
    const before = beforeBoard(site, cooler, own);
    const over = (cooler.type.body.underMm ?? undefined) !== undefined ? partsOfKind(graph, "memory").map((p) => inPlace(p)) : [];
    add({
      id: mountId(cooler.id),
      kind: "fit",
      measure: "cooler",
      title: `Fix ${nameOf(cooler)}`,
      detail: coolerWords(site, cooler),
      rightWhen: "Its screws are tight crosswise and it does not turn by hand; push pins are seen through the board from behind",
      postures: before ? [] : ["front-up"],
      stage: before ? 50 : 330,
      where: { at: before ? "table" : "cooler" },
      screws: SCREWS.cooler,
      anew: "paste: clean the CPU and the plate, put new paste on",
      caution: CAUTION.cooler,
      parts: [cooler.id],
    });
    for (const c of cpu) edge("needs", c, mountId(cooler.id), "it sits on the CPU");
    for (const m of over) edge("covers", m, mountId(cooler.id), "it hangs over the memory");
    if (before) edge("school", mountId(cooler.id), BOARD_IN, "on the table there is room for its screws");
    else edge("needs", BOARD_IN, mountId(cooler.id), "it goes on when the board is in");
  }
  tests(site, board);
}

function tests(site: Site, board: PartNode): void {
  const { graph, policy, add, edge } = site;
  const fans = partsOfKind(graph, "fan");
  const cpus = partsOfKind(graph, "cpu");
  firmwareStep(site);
  if (policy.benchTest === "first" && cpus.length > 0) {
    const rig = rigOf(site, board);
    add({
      id: "bench-test",
      kind: "test",
      measure: "bench-test",
      title: "Bench test: start the board on its box",
      detail: rig.words,
      rightWhen: "It names the CPU and all of the memory. One start clears all that it used",
      stage: 80,
      where: { at: "trial", of: "bench-test" },
      presses: true,
      caution: CAUTION.bridge,
      parts: rig.parts,
      rig: rig.rig,
      leads: [],
      mootOnce: [BOARD_IN],
    });
    edge("school", "bench-test", BOARD_IN, "a dead part is found while everything is still reachable");
    for (const p of cpus) edge("needs", inPlace(p), "bench-test", "nothing starts without the CPU");
    for (const p of partsOfKind(graph, "memory")) edge("school", inPlace(p), "bench-test", "what is in is tested with it");
    for (const p of cpuCoolers(graph))
      if (!isLiquid(p.type) && site.works.get(mountId(p.id))?.postures.length === 0)
        edge("needs", mountId(p.id), "bench-test", "no CPU is started without a cooler");
  }
  if (policy.rehearsal === "table") {
    const leads = graph.connections.filter((c) => graph.leads.get(c.lead)?.loom !== "seat").length;
    const base = minutesOf("rehearsal");
    add({
      id: "rehearsal",
      kind: "test",
      measure: "rehearsal",
      title: "Rehearse: everything flat on the table, wired and started",
      detail: `Board, supply, ${plural(fans.length, "fan", "fans")} and ${plural(leads, "lead", "leads")} laid out and plugged as planned, started once, then taken apart again.`,
      rightWhen: "Every fan turns and every light is lit",
      minutes: { handsOn: base.handsOn + Math.round(leads * 0.5), unattended: base.unattended },
      stage: 90,
      where: { at: "trial", of: "rehearsal" },
      presses: true,
      caution: CAUTION.bridge,
      mootOnce: [BOARD_IN],
    });
    edge("school", "rehearsal", BOARD_IN, "it is done before anything is built in");
    for (const p of cpus) edge("needs", inPlace(p), "rehearsal", "nothing starts without the CPU");
    for (const f of fans) edge("school", "rehearsal", mountId(f.id), "a fan that is dead does not go in");
  } else if (fans.length >= TEST_FANS_FROM) {
    add({
      id: "fan-test",
      kind: "test",
      measure: "fan-test",
      title: `Turn each of the ${fans.length} fans once before it goes in`,
      detail: "On a tester, or on one header of the board.",
      rightWhen: "Each turns without a noise of its own",
      stage: 92,
      where: { at: "trial", of: "fan-test" },
      parts: fans.map((f) => f.id),
      mootOnce: fans.map((f) => mountId(f.id)),
    });
    for (const f of fans)
      edge("school", "fan-test", isOnRadiator(f.part) ? `radiator:${coolerOf(site, f)}` : mountId(f.id), "a dead fan found late costs the most");
  }
}

/** Firmware that must be newer before the first start is written while the board lies on the table. */
function firmwareStep(site: Site): void {
  const [behind] = firmwareBehind(site.graph);
  if (!behind) return;
  const { add, edge } = site;
  const { board, cpu, has, needs, alone } = behind;
  add({
    id: "firmware",
    kind: "prepare",
    measure: "firmware",
    title: `Update the firmware of ${nameOf(board)} to ${needs} or later`,
    detail: alone
      ? `It comes with ${has}; ${nameOf(cpu)} needs ${needs}. This board does it without a CPU: file on a stick in the marked socket, power on its two board plugs, its own key.`
      : `It comes with ${has}; ${nameOf(cpu)} needs ${needs}, and this board updates only with a CPU that it knows: borrow one, or have the supplier do it.`,
    rightWhen: "Its light says that it is done, and the firmware's screen names the new version",
    stage: 5,
    where: { at: "table" },
    caution: CAUTION.firmware,
    parts: [board.id],
    // What was started with this CPU knows it.
    mootOnce: ["bench-test", "first-start"],
  });
  // Without a CPU it is done first; with a borrowed one that comes out again, too.
  edge(
    "needs",
    "firmware",
    inPlace(cpu),
    alone ? "it is done with an empty socket, before anything can be bent" : "the borrowed CPU comes out again first",
  );
  edge("needs", "firmware", "bench-test", "an older one does not know the CPU");
  edge("needs", "firmware", BOARD_IN, "on the table the socket for it is at hand");
  edge("needs", "firmware", "first-start", "an older one does not know the CPU");
}

const coolerOf = (site: Site, fan: PartNode): string => site.radiators.find((r) => r.fans.includes(fan))?.cooler.id ?? "";

/** What is plugged for the bench test, which pins are bridged, and what a spare stands in for. */
function rigOf(site: Site, board: PartNode): { words: string; parts: string[]; rig: Rig } {
  const { graph } = site;
  const memory = partsOfKind(graph, "memory");
  const cpu = partsOfKind(graph, "cpu");
  const supply = partsOfKind(graph, "supply");
  const air = cpuCoolers(graph).filter((c) => !isLiquid(c.type));
  const liquid = cpuCoolers(graph).some((c) => isLiquid(c.type));
  const sees = cpu.some((c) => c.type.ratings.hasGraphics);
  const cards = sees
    ? []
    : partsOfKind(graph, "card")
        .filter((c) => c.type.ratings.hasGraphics)
        .slice(0, 1);
  const plugged = [
    ...boardPorts(graph, "board-power"),
    ...boardPorts(graph, "cpu-power").slice(0, 1),
    // The fan of the cooler, or of the one that stands in for it.
    ...(air.length > 0 || liquid ? boardPorts(graph, "cpu-fan").slice(0, 1) : []),
  ];
  const sockets = cards.map((c) => ({ card: c, ports: portNodes(c).filter((p) => p.port.role === "graphics-power" && p.port.need === "mandatory") }));
  const plugs = [
    ...plugged.map((p) => p.port.label),
    ...sockets.flatMap(({ card, ports: { length: n } }) => (n === 0 ? [] : [`${n === 1 ? "the plug" : `the ${n} plugs`} of ${nameOf(card)}`])),
  ];
  const panel = boardPorts(graph, "panel").find((p) => p.port.family === "panel-block");
  const pins = panel
    ? [...panelPinout(panel.port)].flatMap(([pin, signal]) => (signal.startsWith("power switch") ? [pin] : [])).sort((a, b) => a - b)
    : [];
  const card = cards.map((c) => (sockets.some((x) => x.card === c && x.ports.length > 0) ? "the card" : nameOf(c)));
  // What lies under the memory is plugged in the case: the modules come out again for that.
  const late = graph.connections.some((c) => {
    const p = graph.ports.get(c.port);
    return p?.part === board && p.port.coveredBy.includes("memory") && p.port.role !== "memory";
  });
  const modules = `${plural(memory.length, "module", "modules")}${late ? ` (in for the test, out again: ${memory.length === 1 ? "it comes" : "they come"} in for good once what lies under them is plugged)` : ""}`;
  const inside = [...(memory.length > 0 ? [modules] : []), ...card];
  const words = [
    `Plug ${list(plugs)}${inside.length > 0 ? `, ${list(inside)} in` : ""}; nothing else.`,
    card.length > 0 ? "The card's bracket goes over the table's edge." : "",
    liquid && air.length === 0 ? "A small spare cooler stands in for the liquid one; clean its paste off afterwards." : "",
    "A known-good spare stands in for what has not arrived.",
    `Start it with the board's own button, or bridge the two power-switch pins of ${panel?.port.label ?? "the panel block"}${pins.length === 2 ? `, ${pins.join(" and ")},` : ""} for a moment.`,
  ];
  const fan = air.length === 0 && liquid ? plugged.find((p) => p.port.role === "cpu-fan") : undefined;
  const used = [board, ...cpu, ...memory, ...air, ...cards, ...supply.slice(0, 1)];
  const rig: Rig = {
    ports: [...plugged, ...sockets.flatMap((s) => s.ports)].map((p) => p.address),
    ...(fan ? { spareFan: fan.address } : {}),
    ...(panel && pins.length === 2 ? { bridge: { port: panel.address, pins } } : {}),
  };
  return { words: words.filter(Boolean).join(" "), parts: used.map((p) => p.id), rig };
}
