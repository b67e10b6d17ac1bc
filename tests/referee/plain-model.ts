import loadHighs from "highs";
import { type Build, buildGraph, type TypeLookup } from "../../core/assembly";
import { headerLimit, startingCurrentA } from "../../core/catalogue";
import { leadToPortCm } from "../../core/routes";
import { schoolDeparture, zoneOfTest } from "./school";

/**
 * The plain model of a fan build: one yes-or-no for each plug and each port, a copy for every splitter,
 * roots followed plug by plug, level after level with the LP text interface. Shares no row with the planner.
 * Takes: board headers and fans with one lead each, splitters from the shelf. Returns the levels that such builds can cost.
 */
export async function plainFans(build: Build, types: TypeLookup): Promise<Record<string, number>> {
  const highs = await loadHighs();
  const copies = build.accessories.flatMap((a) =>
    Array.from({ length: a.count }, (_, i) => ({ id: `${a.type}.${i + 1}`, type: a.type, from: "shelf" as const })),
  );
  const graph = buildGraph({ ...build, parts: [...build.parts, ...copies], connections: [] }, types);
  const headers = [...graph.ports.values()].filter((p) => p.part.type.kind === "board" && p.port.family === "fan-4");
  const fans = [...graph.leads.values()].filter((l) => l.part.type.kind === "fan");
  const splits = copies.map((c) => ({
    id: c.id,
    lead: `${c.id}:in`,
    ports: [...graph.ports.values()].filter((p) => p.part.id === c.id).map((p) => p.address),
  }));
  const plugs = [...fans.map((f) => f.address), ...splits.map((s) => s.lead)];
  const name = (...parts: (string | number)[]) => parts.join("_").replace(/[^A-Za-z0-9_]/g, "x");
  const rows: string[] = [];
  const binaries = new Set<string>();
  const v = (...parts: (string | number)[]) => {
    const n = name(...parts);
    binaries.add(n);
    return n;
  };
  const cost: Record<string, [number, string][]> = {
    mandatoryFree: [],
    coolingFree: [],
    fansFree: [],
    functionsReduced: [],
    schoolDepartures: [],
    signalsLost: [],
    radiatorDivided: [],
    coolingShared: [],
    splittersBehind: [],
    extraRoots: [],
    fromShelf: [],
    placesShared: [],
    lengthCm: [],
  };
  const row = (terms: string, op: string, rhs: number) => rows.push(` r${rows.length}: ${terms} ${op} ${rhs}`);

  for (const [i, plug] of plugs.entries()) {
    // A splitter hangs on a header or on a splitter of lower number: copies are alike, and rings cannot form.
    const own = splits.findIndex((s) => s.lead === plug);
    const ports = [...headers.map((h) => h.address), ...splits.filter((_, n) => own < 0 || n < own).flatMap((s) => s.ports)];
    row(ports.map((p) => v("y", i, p)).join(" + "), "<=", 1);
    for (const h of headers) {
      row(`${v("w", i, h.address)} - ${v("y", i, h.address)}`, ">=", 0);
      for (const s of splits.filter((_, n) => own < 0 || n < own)) {
        const si = plugs.indexOf(s.lead);
        for (const p of s.ports) row(`${v("w", i, h.address)} - ${v("y", i, p)} - ${v("w", si, h.address)}`, ">=", -1);
      }
    }
    // On exactly one root when plugged, on none when not; a splitter must be plugged to carry anything.
    row(`${headers.map((h) => v("w", i, h.address)).join(" + ")} - ${ports.map((p) => v("y", i, p)).join(" - ")}`, "=", 0);
    for (const s of splits.filter((_, n) => own < 0 || n < own))
      for (const p of s.ports) row(`${v("y", i, p)} - ${headers.map((h) => v("w", plugs.indexOf(s.lead), h.address)).join(" - ")}`, "<=", 0);
  }
  for (const p of [...headers.map((h) => h.address), ...splits.flatMap((s) => s.ports)]) {
    const mine = plugs.flatMap((_, i) => (binaries.has(name("y", i, p)) ? [v("y", i, p)] : []));
    if (mine.length > 1) row(mine.join(" + "), "<=", 1);
  }
  for (const h of headers) {
    const limit = headerLimit(h.port);
    const steady = fans.map((f, i) => `${Math.round(f.lead.load.currentA * 1000)} ${v("w", i, h.address)}`).join(" + ");
    const start = fans.map((f, i) => `${Math.round(startingCurrentA(f.lead.load) * 1000)} ${v("w", i, h.address)}`).join(" + ");
    row(steady, "<=", Math.round((limit.currentA ?? 99) * 1000));
    row(start, "<=", Math.round((limit.startCurrentA ?? 99) * 1000));
  }
  for (const [i, f] of fans.entries()) {
    const free = v("free", i);
    row(`${free} + ${headers.map((h) => v("w", i, h.address)).join(" + ")}`, ">=", 1);
    cost[f.part.part.zone === "radiator" ? "coolingFree" : "fansFree"]?.push([1, free]);
    for (const h of headers) {
      cost.lengthCm?.push([leadToPortCm(graph, f, h), v("w", i, h.address)]);
      // A place departs once for each role of its fans.
      if (schoolDeparture(build, f, h)) row(`${v("departs", zoneOfTest(graph, f), f.lead.role)} - ${v("w", i, h.address)}`, ">=", 0);
    }
  }
  cost.schoolDepartures = [...binaries].filter((b) => b.startsWith("departs")).map((b) => [1, b]);
  for (const s of splits) {
    const i = plugs.indexOf(s.lead);
    const used = v("used", s.id);
    row(`${used} - ${headers.map((h) => v("w", i, h.address)).join(" - ")}`, ">=", 0);
    cost.fromShelf?.push([1, used]);
  }
  for (const h of headers.filter((x) => x.port.role === "cpu-fan")) {
    const silent = v("silent", h.address);
    row(`${silent} + ${fans.map((_, i) => v("w", i, h.address)).join(" + ")}`, ">=", 1);
    cost.mandatoryFree?.push([1, silent]);
  }
  const zones = new Map<string, number[]>();
  for (const [i, f] of fans.entries()) zones.set(zoneOfTest(graph, f), [...(zones.get(zoneOfTest(graph, f)) ?? []), i]);
  for (const [z, mine] of zones) {
    for (const h of headers) for (const i of mine) row(`${v("z", z, h.address)} - ${v("w", i, h.address)}`, ">=", 0);
    // A header hears one place: a splitter passes on one signal.
    const lost = v("lost", z);
    for (const h of headers) row(`${v("heard", z, h.address)} - ${mine.map((i) => v("w", i, h.address)).join(" - ")}`, "<=", 0);
    row(`${lost} + ${headers.map((h) => v("heard", z, h.address)).join(" + ")}`, ">=", 1);
    cost[z === "radiator" ? "functionsReduced" : "signalsLost"]?.push([1, lost]);
    const extras = headers.slice(1).map((_, k) => v("extra", z, k));
    if (extras.length > 0) row(`${extras.join(" + ")} - ${headers.map((h) => v("z", z, h.address)).join(" - ")}`, ">=", -1);
    for (const e of extras) cost[z === "radiator" ? "radiatorDivided" : "extraRoots"]?.push([1, e]);
  }
  for (const h of headers) {
    row([...zones.keys()].map((z) => v("heard", z, h.address)).join(" + "), "<=", 1);
    const places = [...zones.keys()].filter((z) => z !== "radiator");
    const shared = places.slice(1).map((_, k) => v("places", k, h.address));
    if (shared.length > 0) row(`${shared.join(" + ")} - ${places.map((z) => v("z", z, h.address)).join(" - ")}`, ">=", -1);
    for (const s of shared) cost.placesShared?.push([1, s]);
    if (!zones.has("radiator")) continue;
    for (const z of places) {
      const both = v("both", z, h.address);
      row(`${both} - ${v("z", z, h.address)} - ${v("z", "radiator", h.address)}`, ">=", -1);
      cost.coolingShared?.push([1, both]);
    }
  }
  for (const s of splits)
    for (const p of splits.flatMap((x) => x.ports)) {
      const i = plugs.indexOf(s.lead);
      if (binaries.has(name("y", i, p))) cost.splittersBehind?.push([1, v("y", i, p)]);
    }

  const best: Record<string, number> = {};
  for (const [level, terms] of Object.entries(cost)) {
    if (terms.length === 0) {
      best[level] = 0;
      continue;
    }
    const sum = terms.map(([c, n]) => `${c} ${n}`).join(" + ");
    const text = `Minimize\n obj: ${sum}\nSubject To\n${rows.join("\n")}\nBinary\n ${[...binaries].join(" ")}\nEnd`;
    const answer = highs.solve(text, { output_flag: false, mip_rel_gap: 0 });
    if (answer.Status !== "Optimal") throw new Error(`the plain model ended ${answer.Status}`);
    best[level] = Math.round(answer.ObjectiveValue);
    row(sum, "<=", best[level] ?? 0);
  }
  return best;
}
