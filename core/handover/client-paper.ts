import { airOf } from "../air";
import { type Graph, partsOfKind } from "../assembly";
import { freeEnds } from "../claims";
import { cpuHeat } from "../machine";
import { asItIs, type Paper, type Row, type Section, say, withRows } from "./paper";
import type { Way } from "./ready";
import { roomToGrow } from "./room";

/** What the record says that a build does not: all that may stand in a client's paper beside the machine itself. */
export interface Facts {
  number: string;
  title: string;
  client: string;
  shop: { name: string; address: string; label: string };
  parts: readonly { id: string; name: string; label?: string | undefined; serial?: string | undefined; coverUntil?: string | undefined }[];
  promises: readonly { words: string; verdict: "kept" | "not kept" | "not tested" | "open"; because: string }[];
  /** Minutes under load of the soak that held, and the highest that the CPU reached, °C. */
  soak?: { minutes: number; hottestC?: number | undefined } | undefined;
  /** Lines of first boot: how many were seen as expected of how many; those that nobody saw. */
  seen: { asExpected: number; of: number; not: readonly string[] };
  setup: readonly { what: string; value: string }[];
  /** It left with something missing: why, and who let it. */
  asItIs?: { reason: string; by: string; missing: readonly string[] } | undefined;
  way: Way | undefined;
}

const nameOf = (p: Facts["parts"][number]) => (p.label ? `${p.label}: ${p.name}` : p.name);

function promised(f: Facts): Section {
  const rows = f.promises.map((p): Row => ({ what: asItIs(p.words), says: asItIs(p.because), right: say(`verdict.${p.verdict.replace(" ", "-")}`) }));
  return { title: say("promised.title"), ...(rows.length === 0 ? { lead: say("promised.none") } : {}), rows };
}

function tested(graph: Graph, f: Facts): Section {
  const heat = cpuHeat(graph, { share: 1, roomC: 22 });
  const rows: Row[] = [];
  if (f.soak) rows.push({ what: say("tested.soak"), right: say("minutes", { n: f.soak.minutes }) });
  if (f.soak?.hottestC !== undefined)
    rows.push({
      what: say("tested.hottest"),
      ...(heat ? { says: say("tested.usual", { c: Math.round(heat.loadC) }) } : {}),
      right: say("celsius", { c: Math.round(f.soak.hottestC) }),
    });
  if (f.seen.asExpected > 0) rows.push({ what: say("tested.lines"), right: say("of", { n: f.seen.asExpected, of: f.seen.of }) });
  for (const s of f.setup) rows.push({ what: asItIs(s.what), right: asItIs(s.value) });
  return { title: say("tested.title"), rows };
}

function notTested(f: Facts): Section {
  const rows: Row[] = [
    ...(f.soak ? [] : [{ what: say("not-tested.soak") }]),
    ...f.seen.not.map((w) => ({ what: asItIs(w) })),
    ...f.promises.filter((p) => p.verdict === "not tested" || p.verdict === "open").map((p) => ({ what: asItIs(p.words), says: asItIs(p.because) })),
  ];
  return { title: say("not-tested.title"), rows, ...(rows.length === 0 ? { lead: say("not-tested.nothing") } : {}) };
}

function atHome(graph: Graph, f: Facts): Section {
  const card = partsOfKind(graph, "card").find((c) => c.type.ratings.hasGraphics);
  const at = card ?? partsOfKind(graph, "board")[0];
  const rows: Row[] = [
    ...(f.way === "travels" ? [{ what: say("home.foam") }] : []),
    { what: say("home.stand") },
    { what: say(card ? "home.monitor-card" : "home.monitor-board", { at: at?.part.label ?? at?.type.name ?? "" }) },
    { what: say("home.switch") },
    { what: say("home.normal") },
  ];
  return { title: say("home.title"), rows };
}

function use(graph: Graph): Section {
  const air = airOf(graph);
  const rows: Row[] = [];
  if (air.noiseDb > 0) rows.push({ what: say("use.noise"), says: say("use.computed"), right: say("decibel", { n: Math.round(air.noiseDb) }) });
  if (air.noiseFullDb > 0)
    rows.push({ what: say("use.noise-full"), says: say("use.computed"), right: say("decibel", { n: Math.round(air.noiseFullDb) }) });
  return { title: say("use.title"), rows };
}

/** What is at the front, in the words that are on the case. */
function front(graph: Graph): Section {
  const rows = [...graph.leads.values()]
    .filter((l) => l.part.type.kind === "case" && l.loom !== "seat" && graph.ofLead.has(l.address))
    .map((l): Row => ({ what: asItIs(l.lead.label), says: say("front.works") }));
  return { title: say("front.title"), rows };
}

/** By the day on which it ends: alike parts are counted. */
function cover(f: Facts): Section {
  const days = new Map<string, string[]>();
  for (const p of f.parts) if (p.coverUntil) days.set(p.coverUntil, [...(days.get(p.coverUntil) ?? []), p.name]);
  return {
    title: say("cover.title"),
    rows: [...days].sort(([a], [b]) => (a < b ? -1 : 1)).map(([on, names]) => ({ what: asItIs(counted(names).join("; ")), right: asItIs(on) })),
  };
}

const counted = (names: readonly string[]): string[] => {
  const n = new Map<string, number>();
  for (const name of names) n.set(name, (n.get(name) ?? 0) + 1);
  return [...n].map(([name, count]) => (count > 1 ? `${count} × ${name}` : name));
};

/** What a client is handed: first what was promised, then the machine, what was tested and what was not, and what to know at home. */
export function clientPaper(graph: Graph, f: Facts): Paper {
  const inside = f.parts.map((p): Row => ({ what: asItIs(nameOf(p)), ...(p.serial ? { right: asItIs(p.serial) } : {}) }));
  const free = freeEnds(graph);
  const room = roomToGrow(graph).map((r): Row => ({ what: say(`room.${r.id}`), right: say(UNIT[r.id] ?? "count", { n: r.count }) }));
  return {
    title: say("client.title", { number: f.number, title: f.title }),
    under: [say("client.for", { client: f.client }), ...(f.shop.name ? [asItIs(f.shop.name)] : [])],
    sections: withRows([
      ...(f.asItIs
        ? [
            {
              title: say("as-is.title"),
              lead: say("as-is.lead", { by: f.asItIs.by, reason: f.asItIs.reason }),
              rows: f.asItIs.missing.map((m) => ({ what: asItIs(m) })),
            },
          ]
        : []),
      promised(f),
      { title: say("machine.title"), rows: [], drawing: "front" as const, plain: true as const },
      atHome(graph, f),
      { title: say("inside.title"), rows: inside },
      tested(graph, f),
      notTested(f),
      {
        title: say("free.title"),
        rows: free.map((x) => ({ what: asItIs(x.what), says: asItIs(x.reason) })),
        ...(free.length === 0 ? { lead: say("free.nothing") } : {}),
      },
      front(graph),
      use(graph),
      { title: say("care.title"), rows: [{ what: say("care.dust") }, { what: say("care.filters") }, { what: say("care.moving") }] },
      { title: say("room.title"), lead: say("room.lead"), rows: room },
      cover(f),
      {
        title: say("ask.title"),
        lead: say("ask.lead", { number: f.number }),
        rows: [f.shop.address, f.shop.label].filter(Boolean).map((w) => ({ what: asItIs(w) })),
      },
    ]),
  };
}

const UNIT: Partial<Record<string, string>> = { watts: "watts", "card-length": "millimetres", "cooler-height": "millimetres" };

/** Sections that anybody with the address may see: the machine, its care, its cover. */
const FOR_ALL = new Set([
  "machine.title",
  "home.title",
  "inside.title",
  "free.title",
  "front.title",
  "use.title",
  "care.title",
  "room.title",
  "cover.title",
  "ask.title",
]);

/** The same for whoever has the machine's address: no name, no serial, no price, nothing of how the job went. */
export function clientPage(graph: Graph, f: Facts): Paper {
  const whole = clientPaper(graph, { ...f, client: "", promises: [], parts: f.parts.map(({ serial: _, ...p }) => p), asItIs: undefined });
  return {
    title: whole.title,
    under: f.shop.name ? [asItIs(f.shop.name)] : [],
    sections: whole.sections.filter((s) => "id" in s.title && FOR_ALL.has(s.title.id)),
  };
}
