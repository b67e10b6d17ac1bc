import type { Address } from "../assembly";
import type { Loom, Point } from "../catalogue";
import type { Route } from "../routes";
import type { Sheet } from "../space";

/** One lead as it is drawn on one sheet: beside the others that lie in the same channel. */
export interface Strand {
  lead: Address;
  loom: Loom;
  sheet: Sheet;
  points: Point[];
}

/** From seven on, leads that lie together are one bundle with its count. */
export interface Bundle {
  sheet: Sheet;
  from: Point;
  to: Point;
  leads: Address[];
}

const BUNDLE_FROM = 7;
/** Where one straight ends and the next begins they step aside round the corner: so much, mm, is kept between two in one lane. */
const CORNER_MM = 16;

interface Piece {
  lead: Address;
  sheet: Sheet;
  /** Index of the stretch and of the piece in it. */
  stretch: number;
  at: number;
  level: boolean;
  /** The line on which it lies, and from where to where. */
  line: number;
  lo: number;
  hi: number;
  lane: number;
}

/**
 * Strands of one stretch lie side by side, `pitchMm` apart, in the order of their names; each straight keeps its lane from corner to corner.
 */
export function strandsOf(routes: readonly Route[], pitchMm: number): { strands: Strand[]; bundles: Bundle[] } {
  const pieces: Piece[] = [];
  for (const r of routes)
    for (const [stretch, s] of (r.way?.stretches ?? []).entries())
      for (let i = 1; i < s.points.length; i++) {
        const [a, b] = [s.points[i - 1] as Point, s.points[i] as Point];
        const level = Math.abs(a.yMm - b.yMm) <= Math.abs(a.xMm - b.xMm);
        pieces.push({
          lead: r.lead,
          sheet: s.sheet,
          stretch,
          at: i,
          level,
          line: Math.round(level ? a.yMm : a.xMm),
          lo: level ? Math.min(a.xMm, b.xMm) : Math.min(a.yMm, b.yMm),
          hi: level ? Math.max(a.xMm, b.xMm) : Math.max(a.yMm, b.yMm),
          lane: 0,
        });
      }
  const bundles: Bundle[] = [];
  for (const group of clusters(pieces)) {
    const made = laneThem(group) >= BUNDLE_FROM ? bundlesOf(group) : [];
    bundles.push(...made);
    const together = new Set(made.flatMap((b) => b.leads));
    const apart = group.filter((p) => !together.has(p.lead));
    const lanes = laneThem(apart);
    // Beside a bundle the others go on both its sides, nearest first; without one they share the channel evenly.
    for (const p of apart) p.lane = made.length > 0 ? (p.lane % 2 === 0 ? 1 : -1) * (Math.floor(p.lane / 2) + 1) : p.lane - (lanes - 1) / 2;
    for (const p of group) if (together.has(p.lead)) p.lane = 0;
  }
  const laneOf = new Map(pieces.map((p) => [`${p.lead} ${p.stretch} ${p.at}`, p]));
  const strands = routes.flatMap((r) =>
    (r.way?.stretches ?? []).map(
      (s, k): Strand => ({
        lead: r.lead,
        loom: r.loom,
        sheet: s.sheet,
        points: withEnds(
          s.points,
          s.points.map((p, i) => {
            let { xMm, yMm } = p;
            for (const piece of [laneOf.get(`${r.lead} ${k} ${i}`), laneOf.get(`${r.lead} ${k} ${i + 1}`)]) {
              if (!piece) continue;
              if (piece.level) yMm = p.yMm + piece.lane * pitchMm;
              else xMm = p.xMm + piece.lane * pitchMm;
            }
            return { xMm, yMm };
          }),
        ),
      }),
    ),
  );
  return { strands, bundles };
}

/** The ends stay where they are: a strand steps aside right behind them. */
function withEnds(was: readonly Point[], now: Point[]): Point[] {
  const [a, z] = [was[0], was.at(-1)];
  return a && z && was.length > 1 ? [a, ...now, z] : now;
}

/** Pieces of one line that meet or nearly do, directly or through others. */
function clusters(pieces: readonly Piece[]): Piece[][] {
  const byLine = new Map<string, Piece[]>();
  for (const p of pieces) {
    const key = `${p.sheet} ${p.level} ${p.line}`;
    const there = byLine.get(key);
    if (there) there.push(p);
    else byLine.set(key, [p]);
  }
  const out: Piece[][] = [];
  for (const list of byLine.values()) {
    let now: Piece[] = [];
    let end = Number.NEGATIVE_INFINITY;
    for (const p of [...list].sort((a, b) => a.lo - b.lo || (a.lead < b.lead ? -1 : 1))) {
      if (p.lo >= end + CORNER_MM && now.length > 0) {
        out.push(now);
        now = [];
        end = Number.NEGATIVE_INFINITY;
      }
      now.push(p);
      end = Math.max(end, p.hi);
    }
    if (now.length > 0) out.push(now);
  }
  return out;
}

/** Gives each piece the first lane that is free over its length; how many lanes that takes. */
function laneThem(group: Piece[]): number {
  const ends: number[] = [];
  for (const p of [...group].sort((a, b) => a.lo - b.lo || b.hi - a.hi || (a.lead < b.lead ? -1 : 1))) {
    let lane = ends.findIndex((e) => e + CORNER_MM <= p.lo);
    if (lane < 0) lane = ends.length;
    ends[lane] = p.hi;
    p.lane = lane;
  }
  return ends.length;
}

/** Where seven and more lie together. */
function bundlesOf(group: readonly Piece[]): Bundle[] {
  const cuts = [...new Set(group.flatMap((p) => [p.lo, p.hi]))].sort((a, b) => a - b);
  const out: Bundle[] = [];
  for (let i = 0; i + 1 < cuts.length; i++) {
    const [lo, hi] = [cuts[i] as number, cuts[i + 1] as number];
    const here = group.filter((p) => p.lo <= lo && p.hi >= hi);
    const [one] = here;
    if (!one || here.length < BUNDLE_FROM) continue;
    const leads = [...new Set(here.map((p) => p.lead))].sort();
    const last = out.at(-1);
    const end = one.level ? last?.to.xMm : last?.to.yMm;
    if (last && end === lo && last.leads.join() === leads.join()) {
      if (one.level) last.to.xMm = hi;
      else last.to.yMm = hi;
    } else
      out.push({
        sheet: one.sheet,
        from: one.level ? { xMm: lo, yMm: one.line } : { xMm: one.line, yMm: lo },
        to: one.level ? { xMm: hi, yMm: one.line } : { xMm: one.line, yMm: hi },
        leads,
      });
  }
  return out;
}
