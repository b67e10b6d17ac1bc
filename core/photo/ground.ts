import { Matrix, SingularValueDecomposition, solve } from "ml-matrix";

/** A point of a photo whose place on the part is known: px from the photo's upper left corner, mm from the part's. */
export interface Tap {
  xPx: number;
  yPx: number;
  xMm: number;
  yMm: number;
}

/** How a flat part lies in a photo: px to mm, three by three, row by row, and back. */
export interface Ground {
  toMm: readonly number[];
  toPx: readonly number[];
  /** How far the taps are from where they would be, mm, root of the mean square. */
  offMm: number;
  /** Perspective is taken out only from four taps on. */
  perspective: boolean;
}

/** The widest of the thin: of four points that span less than this share across, nothing is to be told, common practice. */
const THINNEST = 0.04;
const spread = (points: readonly (readonly [number, number])[]): number => {
  const [cx, cy] = [0, 1].map((k) => points.reduce((s, p) => s + (p[k] ?? 0), 0) / points.length) as [number, number];
  const s = new SingularValueDecomposition(new Matrix(points.map(([x, y]) => [x - cx, y - cy]))).diagonal;
  return (s[0] ?? 0) === 0 ? 0 : (s[1] ?? 0) / (s[0] ?? 1);
};

/** Moves points about their middle to a mean distance of the root of two: the sums stay well conditioned (Hartley 1997, from memory). */
function normal(points: readonly (readonly [number, number])[]): Matrix {
  const n = points.length;
  const [cx, cy] = [points.reduce((s, p) => s + p[0], 0) / n, points.reduce((s, p) => s + p[1], 0) / n];
  const d = points.reduce((s, p) => s + Math.hypot(p[0] - cx, p[1] - cy), 0) / n || 1;
  const k = Math.SQRT2 / d;
  return new Matrix([
    [k, 0, -k * cx],
    [0, k, -k * cy],
    [0, 0, 1],
  ]);
}
const through = (m: readonly number[], x: number, y: number): [number, number] => {
  const [a, b, c, d, e, f, g, h, i] = m as [number, number, number, number, number, number, number, number, number];
  const w = g * x + h * y + i;
  return [(a * x + b * y + c) / w, (d * x + e * y + f) / w];
};
export const mmOf = (g: Ground, xPx: number, yPx: number): [number, number] => through(g.toMm, xPx, yPx);
export const pxOf = (g: Ground, xMm: number, yMm: number): [number, number] => through(g.toPx, xMm, yMm);

/**
 * How the part lies in the photo. Two taps give scale and turn, three a slanted look, four and more the perspective (direct linear
 * transformation, least squares over all taps). A sentence where they cannot: too few, two in one place, all in a line.
 */
export function groundOf(taps: readonly Tap[]): Ground | string {
  if (taps.length < 2) return "Tap two points at least: two give scale and turn, four take the perspective out.";
  const px = taps.map((t) => [t.xPx, t.yPx] as const);
  const mm = taps.map((t) => [t.xMm, t.yMm] as const);
  for (const [i, a] of taps.entries())
    for (const b of taps.slice(i + 1))
      if (Math.hypot(a.xPx - b.xPx, a.yPx - b.yPx) < 4 || Math.hypot(a.xMm - b.xMm, a.yMm - b.yMm) < 1)
        return "Two taps are at one place. Take one of them back.";
  if (taps.length >= 3 && (spread(px) < THINNEST || spread(mm) < THINNEST))
    return "These points lie in a line: nothing across it can be told. Tap one away from it.";
  const m = taps.length === 2 ? similarity(px, mm) : taps.length === 3 ? affine(px, mm) : projective(px, mm);
  const inverse = inverted(m);
  if (!inverse) return "These points do not belong together. Take the last one back and tap it again.";
  const ground = { toMm: m.to1DArray(), toPx: inverse.to1DArray(), perspective: taps.length > 3 };
  const off = taps.map((t) => {
    const [x, y] = through(ground.toMm, t.xPx, t.yPx);
    return (x - t.xMm) ** 2 + (y - t.yMm) ** 2;
  });
  const offMm = Math.sqrt(off.reduce((a, b) => a + b, 0) / off.length);
  return Number.isFinite(offMm) ? { ...ground, offMm } : "These points do not belong together. Take the last one back and tap it again.";
}

type Points = readonly (readonly [number, number])[];

function similarity(px: Points, mm: Points): Matrix {
  const [[x1, y1], [x2, y2]] = px as [[number, number], [number, number]];
  const [[u1, v1], [u2, v2]] = mm as [[number, number], [number, number]];
  // As complex numbers: w = k z + t.
  const [dx, dy, du, dv] = [x2 - x1, y2 - y1, u2 - u1, v2 - v1];
  const n = dx * dx + dy * dy;
  const [a, b] = [(du * dx + dv * dy) / n, (dv * dx - du * dy) / n];
  return new Matrix([
    [a, -b, u1 - a * x1 + b * y1],
    [b, a, v1 - b * x1 - a * y1],
    [0, 0, 1],
  ]);
}
function affine(px: Points, mm: Points): Matrix {
  const rows = new Matrix(px.map(([x, y]) => [x, y, 1]));
  const [u, v] = [0, 1].map((k) => solve(rows, Matrix.columnVector(mm.map((p) => p[k] ?? 0))).to1DArray()) as [number[], number[]];
  return new Matrix([u, v, [0, 0, 1]]);
}
function projective(px: Points, mm: Points): Matrix {
  const [tp, tm] = [normal(px), normal(mm)];
  const at = (t: Matrix, [x, y]: readonly [number, number]) => through(t.to1DArray(), x, y);
  const rows = px.flatMap((p, i) => {
    const [x, y] = at(tp, p);
    const [u, v] = at(tm, mm[i] as readonly [number, number]);
    return [
      [-x, -y, -1, 0, 0, 0, u * x, u * y, u],
      [0, 0, 0, -x, -y, -1, v * x, v * y, v],
    ];
  });
  // Of four taps there are eight rows: one more keeps the last right singular vector among those that are worked out.
  while (rows.length < 9) rows.push(Array.from({ length: 9 }, () => 0));
  const { rightSingularVectors: v } = new SingularValueDecomposition(new Matrix(rows));
  const h = v.getColumn(8);
  const m = new Matrix([h.slice(0, 3), h.slice(3, 6), h.slice(6, 9)]);
  const back = inverted(tm);
  return back ? back.mmul(m).mmul(tp) : m;
}
function inverted(m: Matrix): Matrix | undefined {
  const [a, b, c, d, e, f, g, h, i] = m.to1DArray() as [number, number, number, number, number, number, number, number, number];
  const det = a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g);
  const size = Math.max(...m.to1DArray().map(Math.abs));
  if (!Number.isFinite(det) || Math.abs(det) < 1e-12 * size ** 3) return undefined;
  return new Matrix([
    [e * i - f * h, c * h - b * i, b * f - c * e],
    [f * g - d * i, a * i - c * g, c * d - a * f],
    [d * h - e * g, b * g - a * h, a * e - b * d],
  ]).div(det);
}

/** The same for a picture that a browser draws (CSS Transforms Level 2, matrix3d): px of the photo to px of a drawing of so many px a mm. */
export function cssMatrix(g: Ground, pxPerMm: number): string {
  const [a, b, c, d, e, f, p, q, r] = g.toMm as [number, number, number, number, number, number, number, number, number];
  const k = pxPerMm / r;
  return `matrix3d(${[a * k, d * k, 0, p / r, b * k, e * k, 0, q / r, 0, 0, 1, 0, c * k, f * k, 0, 1].join(",")})`;
}
