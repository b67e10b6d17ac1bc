import { airOf } from "../../air";
import { coolsCpu, type LeadNode, naturally, type PartNode, partsOfKind, regionOf } from "../../assembly";
import { noRoomBehind } from "../../catalogue";
import { FAN_MM, fanSeat, tubes } from "../../fit";
import { CAUTION, minutesOf, SCREW_IN_MM, SCREWS } from "../practice";
import { BOARD_IN, inPlace, list, mountId, nameOf, plugId, plural, posturesOfPart, type Site } from "./site";
import { coolerWords } from "./table";

const tagsOf = (site: Site, part: PartNode): string[] =>
  part.type.leads.flatMap((l) => {
    const node = site.graph.leads.get(`${part.id}:${l.id}`);
    return node && node.loom !== "seat" ? [node.tag] : [];
  });

const tagWords = (tags: readonly string[]) =>
  tags.length > 0 ? ` Tag its ${tags.length === 1 ? "lead" : "leads"} ${list(tags)} as it goes in.` : "";

/** Fans, lights, hubs, drives and the supply, each into its place. */
export function mountSteps(site: Site): void {
  fans(site);
  lights(site);
  hubs(site);
  drives(site);
  supplies(site);
  radiators(site);
}

const sorted = (list: readonly PartNode[]) => [...list].sort((a, b) => naturally(a.id, b.id));

function fans(site: Site): void {
  const { graph, add } = site;
  const air = new Map(airOf(graph).fans.map((f) => [f.part.id, f]));
  const onRadiator = new Set(site.radiators.flatMap((r) => r.fans.map((f) => f.id)));
  sorted(partsOfKind(graph, "fan")).forEach((p, i) => {
    if (onRadiator.has(p.id)) return;
    const blows = air.get(p.id)?.blows;
    const seat = fanSeat(graph, p);
    const region = regionOf(graph, p);
    add({
      id: mountId(p.id),
      kind: "fit",
      measure: "fan",
      title: `Fit ${nameOf(p)} at the ${seat?.mount.label ?? region ?? "case"}`,
      detail: `${blows ? `It blows ${blows === "in" ? "into the case" : "out of the case"}: ` : ""}air leaves on the side with the struts; reversed blades go by the arrow.${seat && !seat.inside ? " Outside the frame." : ""} Lead towards the cable side.${tagWords(tagsOf(site, p))} Four screws, loose until all are started.`,
      rightWhen: `The arrow points ${blows === "in" ? "into the case" : blows === "out" ? "out of the case" : "where the air should go"}; four screws are through`,
      postures: region === "behind-tray" ? ["behind-up"] : region === "side" ? ["front-up"] : ["front-up", "standing"],
      stage: 240,
      along: i,
      where: { at: "fans" },
      screws: SCREWS.fan,
      parts: [p.id],
    });
  });
}

function lights(site: Site): void {
  const { graph, add, edge } = site;
  sorted(partsOfKind(graph, "lighting")).forEach((p, i) => {
    add({
      id: mountId(p.id),
      kind: "fit",
      measure: "light",
      title: `Fix ${nameOf(p)}`,
      detail: `Wipe the metal first; lead towards the cable side.${tagWords(tagsOf(site, p))}`,
      rightWhen: "It holds on its whole length",
      postures: ["front-up"],
      stage: 246,
      along: i,
      where: { at: "lights" },
      parts: [p.id],
    });
    for (const f of partsOfKind(graph, "fan"))
      if (p.part.mount !== undefined && f.part.mount === p.part.mount) edge("needs", mountId(f.id), mountId(p.id), "it lies on the fan");
  });
}

function hubs(site: Site): void {
  const { graph, add } = site;
  sorted([...partsOfKind(graph, "hub"), ...partsOfKind(graph, "usb-hub")]).forEach((p, i) => {
    const postures = posturesOfPart(graph, p.id);
    const behind = postures[0] === "behind-up";
    add({
      id: mountId(p.id),
      kind: "fit",
      measure: "hub",
      title: `Fix ${nameOf(p)}${behind ? " behind the tray" : ""}`,
      detail: `Sockets towards the cut-outs.${tagWords(tagsOf(site, p))}`,
      rightWhen: "It does not shift when a plug is pressed in",
      postures,
      stage: 250,
      along: i,
      where: { at: behind ? "behind" : "hubs" },
      screws: SCREWS.hub,
      parts: [p.id],
    });
  });
}

function drives(site: Site): void {
  const { graph, add, edge } = site;
  sorted(partsOfKind(graph, "drive")).forEach((p, i) => {
    if (p.type.leads.some((l) => l.role === "seat")) return;
    const behind = regionOf(graph, p) === "behind-tray";
    const plugs = graph.connections.flatMap((c) => (graph.ports.get(c.port)?.part.id === p.id ? [plugId(c.lead)] : []));
    add({
      id: mountId(p.id),
      kind: "fit",
      measure: "drive",
      title: behind ? `Screw ${nameOf(p)} to its plate behind the tray` : `Slide ${nameOf(p)} into its cage`,
      detail: behind ? "Sockets towards the cut-outs." : cageWords(p, plugs.length),
      rightWhen: behind ? "Four screws, and both sockets can be reached" : "The rail clicks, and no lead is caught behind it",
      postures: behind ? ["behind-up"] : ["front-up"],
      stage: behind ? 252 : 690,
      along: i,
      where: { at: behind ? "behind" : "cage" },
      screws: SCREWS.drive,
      parts: [p.id],
    });
    if (!behind) for (const plug of plugs) edge("covers", plug, mountId(p.id), "no hand fits behind the drive once it is in its cage");
    else for (const plug of plugs) edge("needs", mountId(p.id), plug, "the drive is fixed first, so that its plugs are not pulled");
    // A cage that is out takes no drive; that is a finding of the parts.
    if (!behind) edge("needs", BOARD_IN, mountId(p.id), "the board is laid in past an empty cage");
  });
}

/** A drive in its cage hides its own sockets. */
function cageWords(drive: PartNode, plugs: number): string {
  if (plugs === 0) return "Plug it first: no hand fits behind it once it is in.";
  const missing = drive.type.ports.length - plugs;
  const are = plugs === 1 ? "Its plug is" : plugs === 2 ? "Both plugs are" : `All ${plugs} plugs are`;
  return missing > 0
    ? `${plugs === 1 ? "One plug is" : `${plugs} plugs are`} in already, ${missing === 1 ? "one socket has" : `${missing} sockets have`} none planned: no hand fits behind it once it is in.`
    : `${are} in already: no hand fits behind it.`;
}

function supplies(site: Site): void {
  const { graph, shell, add } = site;
  const shroud = (shell?.type.body.bodies ?? []).some((b) => b.kind === "cover" && b.side === "front");
  const behind = shell !== undefined && !noRoomBehind(shell.type.body);
  for (const p of partsOfKind(graph, "supply")) {
    const hangs = shell?.type.body.mounts.find((m) => m.id === p.part.mount)?.offMm !== undefined;
    add({
      id: mountId(p.id),
      kind: "fit",
      measure: "supply",
      title: hangs ? "Hang the power supply over the board" : "Slide the power supply in",
      detail: `${p.type.name}.${p.part.bracket ? " On its bracket, which is screwed to the supply first." : ""} Fan towards the vent, four screws. ${hangs ? "Whatever it covers is plugged; no lead is pinched under it." : "No lead lies under it."}`,
      rightWhen: hangs ? "Four screws, the switch is off, and nothing presses on what is under it" : "Four screws, and the switch is off",
      postures: hangs || !behind ? ["front-up"] : shroud ? ["behind-up"] : ["front-up", "behind-up"],
      stage: 260,
      where: { at: "supply" },
      screws: SCREWS.supply + (p.part.bracket ? SCREWS.supply : 0),
      caution: CAUTION.live,
      parts: [p.id],
    });
  }
}

function radiators(site: Site): void {
  const { graph, add, edge } = site;
  for (const { cooler, fans, place, pushPull } of site.radiators) {
    const depth = Math.max(FAN_MM, ...fans.map((f) => f.type.body.depthMm ?? 0));
    const n = fans.length;
    const screws = n * SCREWS.perRadiatorFan;
    const end = tubes(graph).find((t) => t.seat.cooler === cooler)?.end;
    const joined = graph.connections.flatMap((c): LeadNode[] => {
      const lead = graph.leads.get(c.lead);
      return lead && fans.includes(lead.part) && graph.ports.get(c.port)?.part.type.kind === "splitter" ? [lead] : [];
    });
    const own = cooler.type.leads.some((l) => l.role === "radiator-fan");
    const where = place ? ` at the ${place.label}` : "";
    add({
      id: `radiator:${cooler.id}`,
      kind: "assemble",
      measure: "radiator",
      title: `Put ${radiatorName(cooler)} together on the table`,
      detail: `${n > 0 ? `${plural(n, "fan", "fans")}${pushPull ? ", on both faces, all blowing one way" : ""}, ${screws} screws of ${depth + SCREW_IN_MM} mm: a longer one goes into the fins.` : own ? "Its fans come with it." : "No fan is marked as its own: use those that it came with."}${joined.length > 0 ? ` Join ${list(joined.map((l) => l.tag))} to the splitter now.` : ""}${end ? ` Tubes will come out at the ${end} end.` : ""}`,
      rightWhen: "Every fan blows the same way, no screw has touched the fins, leads end on the cable side",
      minutes: { ...minutesOf("radiator"), handsOn: 3 + Math.max(1, n) * 3 },
      stage: 270,
      where: { at: "radiator", cooler: cooler.id },
      screws,
      caution: CAUTION.fins,
      parts: [cooler.id, ...fans.map((f) => f.id)],
      mootOnce: [mountId(cooler.id)],
    });
    add({
      id: mountId(cooler.id),
      kind: "fit",
      measure: "hang",
      title: `Hang ${radiatorName(cooler)}${where}`,
      detail: `Short screws into the case, ${plural(Math.max(4, n * 4), "of them", "of them")}, all started before one is tight.${end ? ` Tubes at the ${end} end.` : ""}`,
      rightWhen: "It hangs flat, the tubes bend without a kink, nothing is caught behind it",
      postures: ["front-up", "standing"],
      stage: 400,
      where: { at: "hang", cooler: cooler.id },
      screws: Math.max(4, n * 4),
      parts: [cooler.id, ...fans.map((f) => f.id)],
    });
    if (coolsCpu(cooler)) headSteps(site, cooler);
    else if (cooler.part.cools !== "loop") blockSteps(site, cooler);
    edge("needs", `radiator:${cooler.id}`, mountId(cooler.id), "with its fans on it goes in as one piece");
    edge("needs", BOARD_IN, mountId(cooler.id), "the board goes in past the place of the radiator");
    for (const l of joined) {
      edge("needs", `radiator:${cooler.id}`, plugId(l.address), "the fan is on the radiator first");
      edge("school", plugId(l.address), mountId(cooler.id), "joined on the table, nobody looks for it behind the radiator");
    }
  }
}

/** A radiator by the name of its cooler, unless that is called a radiator itself. */
const radiatorName = (cooler: PartNode): string => (/radiator/i.test(nameOf(cooler)) ? nameOf(cooler) : `the radiator of ${nameOf(cooler)}`);

/** The head of a radiator that cools the CPU. */
function headSteps(site: Site, cooler: PartNode): void {
  const { graph, add, edge } = site;
  add({
    id: `head:${cooler.id}`,
    kind: "fit",
    measure: "head",
    title: `Fix the pump head of ${nameOf(cooler)} on the CPU`,
    detail: coolerWords(site, cooler),
    rightWhen: "Its screws are tight crosswise, its picture stands upright, the tubes are not pulled",
    postures: ["front-up"],
    stage: 410,
    where: { at: "head", cooler: cooler.id },
    screws: SCREWS.cooler,
    anew: "paste: clean the CPU and the plate, put new paste on",
    caution: CAUTION.cooler,
    parts: [cooler.id],
  });
  edge("needs", BOARD_IN, `head:${cooler.id}`, "the CPU is where it belongs only once the board is in");
  for (const p of partsOfKind(graph, "cpu")) edge("needs", inPlace(p), `head:${cooler.id}`, "it sits on the CPU");
  edge("school", mountId(cooler.id), `head:${cooler.id}`, "hung first, the radiator's weight is not on the tubes");
}

/** The block of a radiator that cools a card: it goes onto the card while that lies on the table. */
function blockSteps(site: Site, cooler: PartNode): void {
  const { graph, add, edge } = site;
  const card = graph.parts.get(cooler.part.cools ?? "");
  if (card?.type.kind !== "card") return;
  const id = `head:${cooler.id}`;
  add({
    id,
    kind: "fit",
    measure: "head",
    title: `Fix the block of ${nameOf(cooler)} on ${nameOf(card)}`,
    detail: "On the table, the card on something soft. Its own cooler is off; pads and paste are new, as its sheet says.",
    rightWhen: "Its screws are tight crosswise, every pad is pressed, the tubes are not pulled",
    stage: 45,
    where: { at: "table" },
    screws: SCREWS.cooler,
    anew: "paste and pads: clean both, put new ones on",
    caution: CAUTION.static,
    parts: [cooler.id, card.id],
    mootOnce: [inPlace(card)],
  });
  edge("needs", id, inPlace(card), "the block is on the card before the card is in its slot");
}

/** Radiators that share a loop are filled and looked at for leaks before anything else has power. */
export function loopSteps(site: Site): void {
  const loop = site.radiators.filter((r) => r.cooler.part.cools === "loop");
  if (loop.length === 0) return;
  const { add, edge } = site;
  add({
    id: "fill-loop",
    kind: "test",
    measure: "fill-loop",
    title: "Fill the loop and look for leaks, on the pump alone",
    detail: `${list(loop.map((r) => nameOf(r.cooler)))}: paper under every joint, the pump on a supply of its own or with the board's plugs out, refilled until no air comes. Left running for hours (common practice).`,
    rightWhen: "Every paper is dry, the level stays, and the pump is quiet",
    postures: ["standing"],
    stage: 880,
    where: { at: "look" },
    caution: CAUTION.loop,
    parts: loop.map((r) => r.cooler.id),
  });
  for (const r of loop) edge("needs", mountId(r.cooler.id), "fill-loop", "all of the loop hangs before it is filled");
}
