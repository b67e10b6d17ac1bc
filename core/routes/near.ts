import type { Graph, Rect } from "../assembly";
import type { Point } from "../catalogue";
import { bodyOf } from "../space";
import { type Routes, routesOf } from "./routes";

/** A lead that lies so near can reach into a fan's blades, mm (common practice). */
const NEAR_MM = 40;
const MOST = 6;

/** A lead that passes by a thing: how near, mm. */
export interface Near {
  lead: string;
  tag: string;
  mm: number;
}

/** Leads that pass by a part, the nearest first, its own apart: what ticks in a fan is one of these, or the fan. */
export function leadsNear(graph: Graph, partId: string, routes: Routes = routesOf(graph)): Near[] {
  const body = bodyOf(graph, partId);
  if (!body) return [];
  const own = new Set([...graph.leads.values()].filter((l) => l.part.id === partId).map((l) => l.address));
  return routes.routes
    .flatMap((r): Near[] => {
      if (own.has(r.lead)) return [];
      const stretches = (r.way?.stretches ?? []).filter((s) => body.sheets.includes(s.sheet));
      const mm = Math.min(...stretches.flatMap((s) => s.points.slice(1).map((p, i) => between(body.rect, s.points[i] ?? p, p))));
      return mm <= NEAR_MM ? [{ lead: r.lead, tag: r.tag, mm: Math.round(mm) }] : [];
    })
    .sort((a, b) => a.mm - b.mm || a.tag.localeCompare(b.tag))
    .slice(0, MOST);
}

/** From a rectangle to a run along an edge, mm: runs go along the axes, so that boxes are compared. */
function between(r: Rect, a: Point, b: Point): number {
  const gap = (lo: number, hi: number, from: number, to: number) => Math.max(0, Math.max(lo - to, from - hi));
  return Math.hypot(
    gap(r.xMm, r.xMm + r.widthMm, Math.min(a.xMm, b.xMm), Math.max(a.xMm, b.xMm)),
    gap(r.yMm, r.yMm + r.heightMm, Math.min(a.yMm, b.yMm), Math.max(a.yMm, b.yMm)),
  );
}
