import { buildGraph, type Graph, typeLookup } from "../assembly";
import { assumed, type Figure, type FigureValue, figureWords, isProvisional, type PartType, rangeOf, withFigure } from "../catalogue";
import type { Finding } from "../checks";
import { type Clearance, clearances, said } from "../fit";

/**
 * Lengths that nobody has confirmed and whose worst plausible value would not go in: by which figure, up to which value it does, and which
 * parts wait for it. What does not fit as it is assumed already is no question; fit says so itself.
 */
export function couldStop(graph: Graph): Finding[] {
  const types = new Map([...graph.parts.values()].filter((p) => !p.cable).map((p) => [p.type.id, p.type]));
  const open = [...types.values()].flatMap((t) =>
    isProvisional(t) ? assumed(t).flatMap((f) => (f.unit === "mm" && typeof t.figures?.[f.id]?.value === "number" ? [{ t, f }] : [])) : [],
  );
  if (open.length === 0) return [];
  const plain = new Map(clearances(graph).map((c) => [c.id, c]));
  const out: Finding[] = [];
  for (const { t, f } of open) {
    const is = Number(t.figures?.[f.id]?.value);
    for (const end of rangeOf(t, f)) {
      const hit = tooTight(graph, t, f, end, plain);
      if (!hit || typeof end !== "number") continue;
      let [fits, not] = [is, end];
      // Whole millimetres: nobody measures finer.
      while (Math.abs(not - fits) > 1) {
        const middle = not > fits ? Math.floor((fits + not) / 2) : Math.ceil((fits + not) / 2);
        if (tooTight(graph, t, f, middle, plain)) not = middle;
        else fits = middle;
      }
      out.push(finding(graph, t, f, hit, fits, end > is));
    }
  }
  return out;
}

/** What no longer goes in where a figure is this, and does as it is assumed. */
function tooTight(graph: Graph, t: PartType, f: Figure, value: FigureValue, plain: ReadonlyMap<string, Clearance>): Clearance | undefined {
  const other = withFigure(t, f.id, value);
  const shelf = typeLookup(graph.build, []);
  const own = new Map([...graph.parts.values()].map((p) => [p.type.id, p.type]));
  const build = { ...graph.build, connections: [], partTypes: graph.build.partTypes.map((x) => (x.id === t.id ? other : x)) };
  const changed = buildGraph(build, (id) => (id === t.id ? other : (own.get(id) ?? shelf(id))));
  return clearances(changed).find((c) => c.verdict === "not" && plain.has(c.id) && plain.get(c.id)?.verdict !== "not");
}

function finding(graph: Graph, t: PartType, f: Figure, c: Clearance, limit: number, most: boolean): Finding {
  const mine = [...graph.parts.values()].filter((p) => p.type.id === t.id).map((p) => p.id);
  return {
    id: `could-stop:${t.id}:${f.id}`,
    rule: "could-stop",
    severity: "warn",
    message: `Could stop: measure ${t.name}, ${f.word} ${limit} mm at ${most ? "most" : "least"}; ${figureWords(f, t.figures?.[f.id]?.value ?? 0)} is assumed. Otherwise: ${said({ ...c, assumed: [] })}`,
    ends: mine,
    // It waits in the hand: only what puts it in is held.
    holds: c.parts.filter((p) => mine.includes(p)).length > 0 ? mine : c.parts.slice(0, 1),
    ifIgnored: c.ifIgnored,
  };
}
