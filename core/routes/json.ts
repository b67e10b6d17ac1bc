import type { Graph } from "../assembly";
import { drawnNetwork } from "./network";
import { routesOf } from "./routes";
import { behindWords, routeWords } from "./words";

const whole = (n: number) => Math.round(n * 10) / 10;

/** Everything of the routes as plain data: see docs/formats.md. */
export function routesJson(graph: Graph) {
  const all = routesOf(graph);
  const net = drawnNetwork(graph);
  return {
    assumed: all.assumed,
    leads: all.routes.map((r) => ({
      lead: r.lead,
      tag: r.tag,
      loom: r.loom,
      port: r.port,
      needMm: r.needMm,
      lengthMm: r.hasMm,
      surplusMm: r.hasMm - r.needMm,
      tidy: r.tidy,
      way: r.way ? r.way.stretches.map((s) => ({ side: s.sheet, points: s.points.map((p) => [whole(p.xMm), whole(p.yMm)]) })) : null,
      cutouts: r.way ? r.way.cutouts.map((i) => net?.cutouts[i]?.id ?? "") : [],
      folded: r.fold ? r.fold.words : null,
      ties: r.ties,
      untied: r.untied ?? null,
      asked: r.asked ?? null,
      through: r.through,
      words: routeWords(graph, r),
    })),
    cutouts: all.fill.map((c) => ({ id: c.id, label: c.label, percent: c.percent, leads: c.leads })),
    behind: all.behind
      ? {
          thicknessMm: all.behind.thicknessMm,
          roomMm: all.behind.roomMm,
          leads: all.behind.leads,
          at: [whole(all.behind.at.xMm), whole(all.behind.at.yMm)],
        }
      : null,
    joints: all.joints.map(({ lead, words }) => ({ lead, words })),
    words: behindWords(graph, all),
  };
}
