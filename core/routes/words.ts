import { type Graph, partsOfKind } from "../assembly";
import { contradictions } from "../catalogue";
import { drawnNetwork } from "./network";
import type { Route, Routes } from "./routes";

/** A cut-out this full takes no further plug without force, percent of its opening (common practice). */
export const FULL_PERCENT = 60;

/** How a lead runs, in sentences: the way, the length, what is too long and where it goes, the ties. */
export function routeWords(graph: Graph, r: Route): string[] {
  const out: string[] = [];
  const net = drawnNetwork(graph);
  if (!r.way)
    return [
      net
        ? "No way leads there that goes through nothing solid. Its length is not known."
        : "The outline of the case is not known, so its way is not either.",
    ];
  const cuts = r.way.cutouts.map((i) => net?.cutouts[i]?.label ?? "").filter(Boolean);
  const sides = r.way.stretches.map((s) => (s.sheet === "front" ? "in front" : "behind the tray"));
  if (r.asked) out.push(`Led through the cut-out ${net?.cutouts.find((c) => c.id === r.asked)?.label ?? r.asked}, as somebody wants it.`);
  const wanted = graph.build.ways?.find((w) => w.lead === r.lead);
  if (wanted && !r.asked)
    out.push(
      `It is wanted through the cut-out ${net?.cutouts.find((c) => c.id === wanted.cutout)?.label ?? wanted.cutout}, but no way leads through that: it goes as usual.`,
    );
  out.push(
    `Runs ${[...new Set(sides)].join(", then ")}${cuts.length > 0 ? `, through ${cuts.length === 1 ? "the cut-out" : "the cut-outs"} ${cuts.join(" and ")}` : ""}.`,
  );
  const spare = r.hasMm - r.needMm;
  out.push(
    spare < 0
      ? `${r.needMm} mm are needed, it has ${r.hasMm} mm: ${-spare} mm too short.`
      : `${r.needMm} of ${r.hasMm} mm, ${spare} mm to spare${r.tidy ? "" : "; only laid straight over, the tidy way is longer"}.`,
  );
  if (r.fold) out.push(`Fold what is left ${r.fold.words}.`);
  if (r.untied) out.push(`${r.untied}.`);
  else if (r.ties.length > 0) out.push(`${r.ties.length} ${r.ties.length === 1 ? "tie point" : "tie points"} on its way.`);
  return out;
}

/** What is right once the leads are tied: that the back closes, with the room that is left where it is known. */
export function backCloses({ behind }: Routes): string {
  if (!behind) return "The back closes without force";
  const left = Math.floor(behind.roomMm - behind.thicknessMm);
  return left >= 0 ? `The back closes without force: ${left} mm are left at the thickest place` : "Nothing lies thicker than the back leaves room";
}

/** Does the panel close over what lies behind the tray, and which cut-outs are full. */
export function behindWords(graph: Graph, routes: Routes): string[] {
  const out: string[] = partsOfKind(graph, "case")
    .flatMap((c) => contradictions(c.type))
    .map((s) => `What the shelf says of this case cannot be right. ${s}`);
  if (routes.behind) {
    const left = Math.floor(routes.behind.roomMm - routes.behind.thicknessMm);
    out.push(
      left >= 0
        ? `The back closes over the leads planned so far, ${left} mm to spare: ${routes.behind.thicknessMm} of ${routes.behind.roomMm} mm where ${routes.behind.leads === 1 ? "the thickest lead lies" : `${routes.behind.leads} leads lie together`}${routes.behind.folded ? ", folds counted" : ""}.`
        : `The back does not close: leads lie ${routes.behind.thicknessMm} mm thick where there are ${routes.behind.roomMm} mm. Spread them over two channels.`,
    );
  }
  for (const c of routes.fill)
    if (c.percent > FULL_PERCENT) out.push(`The cut-out ${c.label} is ${c.percent} % full with ${c.leads.length} leads: lead some through another.`);
  if (routes.assumed.length > 0) out.push(`Assumed, for the case's entry does not say it: ${routes.assumed.join(", ")}.`);
  return out;
}
