import { naturally, type PartNode, partsOfKind } from "../../assembly";
import { riserNeedMm, slotOf } from "../../fit";
import { behindStanding } from "../../space";
import { upper } from "../../words";
import type { Work } from "../model";
import { CAUTION, SCREWS } from "../practice";
import { BOARD_IN, inPlace, list, mountId, nameOf, plugId, type Site } from "./site";

/** A vertical card is put on its riser, and goes in with it. */
export function riserSteps(site: Site): void {
  const { graph, add, edge } = site;
  for (const p of partsOfKind(graph, "card")) {
    if (!p.part.vertical) continue;
    const need = riserNeedMm(graph, p);
    add({
      id: `riser:${p.id}`,
      kind: "assemble",
      measure: "riser",
      title: `Put the riser and bracket of ${nameOf(p)} in`,
      detail: `The riser goes into the slot first; bracket and card may have to go in as one piece.${need ? ` It needs ${Math.round(need)} mm.` : ""}`,
      rightWhen: "The riser clicks into the slot and lies without a sharp bend",
      postures: ["front-up"],
      stage: 795,
      where: { at: "card", part: p.id },
      screws: SCREWS.riser,
      parts: [p.id],
      mootOnce: [inPlace(p)],
    });
    edge("needs", BOARD_IN, `riser:${p.id}`, "it goes into a slot of the board");
    edge("needs", `riser:${p.id}`, inPlace(p), "the card sits on the riser");
  }
}

/**
 * Which card goes in first: those in their slots from the lowest up, each with the support that no hand sets once another card lies over
 * it; then one that stands before the board, and before it whatever it hides.
 */
export function cardsInTurn(site: Site): void {
  const { graph, edge, works } = site;
  const cards = partsOfKind(graph, "card").filter((p) => works.has(inPlace(p)));
  const level = cards.filter((p) => !p.part.vertical);
  const y = (p: (typeof cards)[number]) => slotOf(graph, p)?.at.yMm ?? 0;
  const up = [...level].sort((a, b) => y(b) - y(a) || naturally(a.id, b.id));
  for (const [i, lower] of up.entries()) {
    const next = up[i + 1];
    if (!next) continue;
    edge("school", inPlace(lower), inPlace(next), "from the lowest slot up there is room for hand and screwdriver");
    if (works.has(`support:${lower.id}`)) edge("covers", `support:${lower.id}`, inPlace(next), "under the next card no hand sets it");
  }
  for (const standing of cards.filter((p) => p.part.vertical)) {
    for (const p of level) edge("school", inPlace(p), inPlace(standing), "the one that stands comes before the others");
    for (const b of behindStanding(graph, standing)) {
      const id = b.kind === "pump" ? `head:${b.part?.id}` : b.part ? mountId(b.part.id) : undefined;
      if (id && works.has(id)) edge("covers", id, inPlace(standing), `${b.name} is behind ${nameOf(standing)}`);
    }
  }
}

/** From here on a card that lies level hangs on its slot: common practice. */
const LONG_CARD_MM = 280;
const THICK_CARD_SLOTS = 3;

/** A long or thick card that lies level rests on a support at its free end. */
export function supportSteps(site: Site): void {
  const { graph, add, edge } = site;
  for (const p of partsOfKind(graph, "card")) {
    const { widthMm, slots } = p.type.body;
    if (p.part.vertical || ((widthMm ?? 0) < LONG_CARD_MM && (slots ?? 0) < THICK_CARD_SLOTS)) continue;
    // Nothing carries a card that no plan puts anywhere.
    if (!p.type.leads.some((l) => graph.ofLead.has(`${p.id}:${l.id}`))) continue;
    const id = `support:${p.id}`;
    add({
      id,
      kind: "fit",
      measure: "support",
      title: `Set the support under ${nameOf(p)}`,
      detail: `Under its free end, ${widthMm ? `about ${Math.round(widthMm - 30)} mm from the slot covers` : "far from the slot covers"}; clear of its fans and of every lead.`,
      rightWhen: "The card's edge is level with its slot when the case stands, and the support cannot fall into a fan",
      postures: ["front-up", "standing"],
      stage: 830,
      where: { at: "card", part: p.id },
      parts: [p.id],
    });
    edge("needs", inPlace(p), id, "there is a card to carry");
    for (const c of graph.connections) {
      const port = graph.ports.get(c.port);
      if (port?.part === p) edge("school", plugId(c.lead), id, "plugged first, no hand lifts the card off its support");
    }
  }
}

/** The last look, the first start, panels and the bag. */
export function finishSteps(site: Site): void {
  const { add, edge, shell, policy } = site;
  const physical = [...site.works.values()];
  const hasNext = new Set(site.edges.filter((e) => e.kind !== "school").map((e) => e.before));
  const late = (w: Work) => w.id === "tie" || (w.kind === "dress" && policy.dressing === "after-start");
  add({
    id: "look",
    kind: "check",
    measure: "look",
    title: "Look once more before power",
    detail: "Nothing loose, no screw left in the case, no cable near a fan. Monitor on the right socket.",
    rightWhen: "Nothing rattles when it is tilted, every plug is in to the stop",
    postures: ["standing", "front-up"],
    stage: 900,
    where: { at: "look" },
  });
  for (const w of physical)
    if (!late(w) && w.kind !== "test" && w.id !== "open" && (!hasNext.has(w.id) || w.kind === "dress"))
      edge("needs", w.id, "look", w.kind === "dress" ? "no lead lies before a fan" : "nothing is started half built");
  if (site.board) {
    const hasPump = [...site.graph.leads.values()].some((l) => l.lead.role === "pump") || site.radiators.length > 0;
    add({
      id: "first-start",
      kind: "test",
      measure: "first-start",
      title: shell?.type.body.panels === 0 ? "Start it once" : "Start it once with the panels off",
      detail: "First boot: look and listen, then tick the lines there. Full fan noise is normal at the very first start.",
      rightWhen: `All fans turn, ${hasPump ? "the pump runs, " : ""}the firmware's screen comes`,
      postures: ["standing", "front-up"],
      stage: 910,
      where: { at: "trial", of: "first-start" },
      presses: true,
      caution: CAUTION.mains,
      done: site.powered || site.isDone("first-start"),
    });
    edge("needs", "look", "first-start", "the last look comes before power");
    for (const w of physical.filter(late)) edge("school", "first-start", w.id, "tied for good when it is known to run");
  }
  if (!shell) return;
  const off = physical.flatMap((w) => w.takesOff);
  const panels = off.filter((x) => x === "panels" || x.startsWith("filter"));
  const { panels: sides = 2, glass } = shell.type.body;
  const back = [
    panels.some((x) => x.startsWith("filter")) ? "filters back" : "",
    sides === 2 ? "both panels on" : sides === 1 ? "the panel on" : "",
  ].filter(Boolean);
  if (back.length > 0)
    add({
      id: "close",
      kind: "close",
      measure: "close",
      title: `Close the case: ${back.join(", ")}`,
      detail: `${sides === 2 ? "The back first, lying flat behind; then the front." : "Nothing is caught under it."}${glass === false || sides === 0 ? "" : " Films off the glass now, not before."}`,
      rightWhen: sides === 2 ? "The back closes without force" : "It closes without force",
      postures: ["standing"],
      stage: 950,
      where: { at: "close" },
      screws: SCREWS.panel,
      putsBack: panels,
      photo: "the inside and behind the tray, before the panels are on",
      ...(glass === false || sides === 0 ? {} : { caution: CAUTION.glass }),
      parts: [shell.id],
    });
  for (const w of physical.filter(late)) edge("covers", w.id, "close", "the panel lies over the leads");
  edge("needs", site.board ? "first-start" : "look", "close", "it has run before it is closed");
  const bag = [...off.filter((x) => !panels.includes(x)), ...bagOf(site)];
  add({
    id: "pack",
    kind: "close",
    measure: "pack",
    title: "Put what came off into the bag",
    detail: `${upper(list([...new Set(bag)], 8)) || "Spare screws and cables"}: labelled, for the client.`,
    rightWhen: "Nothing is left on the bench",
    stage: 960,
    where: { at: "close" },
    putsBack: off.filter((x) => !panels.includes(x)),
    parts: [shell.id],
  });
  edge("needs", "close", "pack", "what is left over is seen when it is closed");
  open(site);
}

/** What is kept for a return: covers, brackets, spare cables. */
function bagOf(site: Site): string[] {
  const out: string[] = [];
  if (partsOfKind(site.graph, "cpu").length > 0) out.push("socket cover");
  if (partsOfKind(site.graph, "cooler").length > 0) out.push("brackets of the cooler that were not used");
  if (partsOfKind(site.graph, "supply").some((p) => p.type.cables.some((c) => !c.captive))) out.push("supply cables that were not used");
  return out;
}

/** Whatever is done in the case is done with its panels off. */
function open(site: Site): void {
  const inCase = [...site.works.values()].filter((w) => w.postures.length > 0 && w.id !== "open");
  const ids = new Set(inCase.map((w) => w.id));
  const led = new Set(site.edges.filter((e) => ids.has(e.before) && e.kind !== "school").map((e) => e.after));
  for (const w of inCase) if (!led.has(w.id)) site.edge("needs", "open", w.id, "the panels are off");
  const work = site.works.get("open");
  if (work) site.works.set("open", { ...work, mootOnce: inCase.filter((w) => w.kind !== "close").map((w) => w.id) });
}

/** Steps that hide much: before each comes a last look at what lies under it. */
export function gates(site: Site): void {
  const { add, edge } = site;
  const cards = partsOfKind(site.graph, "card")
    .map((p) => inPlace(p))
    .sort(naturally);
  const big = [BOARD_IN, ...site.radiators.map((r) => mountId(r.cooler.id)), ...cards.slice(0, 1)];
  for (const id of big) {
    const work = site.works.get(id);
    const under = site.edges.filter((e) => e.kind === "covers" && e.after === id && site.works.has(e.before)).map((e) => e.before);
    if (!work || under.length === 0) continue;
    const names = [...new Set(under)].flatMap((u) => shortOf(site, u));
    add({
      id: `gate:${id}`,
      kind: "gate",
      measure: "gate",
      title: `Last look: what lies under ${id === BOARD_IN ? "the board" : id.startsWith("plug:") ? "the card" : "the radiator"}`,
      detail: `${upper(list(names, 9))}: all in?`,
      rightWhen: "Nothing under it is still open",
      postures: work.postures,
      stage: work.stage - 1,
      where: { at: "gate", gate: id },
      mootOnce: [id],
    });
    for (const u of new Set(under)) edge("needs", u, `gate:${id}`, "it is looked at before it is covered");
    edge("needs", `gate:${id}`, id, "covered, it costs all of this again");
  }
}

function shortOf(site: Site, id: string): string[] {
  const w = site.works.get(id);
  if (!w) return [];
  const port = w.port ? site.graph.ports.get(w.port) : undefined;
  if (port) return [port.port.label];
  if (id.startsWith("support:")) return [`the support of ${nameOf(site.graph.parts.get(id.slice("support:".length)) as PartNode)}`];
  return [{ "io-shield": "I/O shield", standoffs: "standoffs" }[id] ?? w.title];
}
