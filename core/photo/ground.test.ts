import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cssMatrix, type Ground, groundOf, mmOf, pxOf, type Tap } from ".";

/** Holes of an ATX board, mm from its rear upper corner (ATX specification 2.2, from memory). */
const HOLES = [
  [10, 6],
  [165, 6],
  [237, 6],
  [10, 163],
  [165, 163],
  [237, 163],
  [10, 288],
  [237, 288],
] as const;

/**
 * A pinhole camera worked out by hand: the board lies in the plane z = 0, the camera stands at (120, 150, 500) mm over it, turned by `tilt`
 * about the x axis; a point goes to f · x' / z', f · y' / z' about the middle of the picture.
 */
const seen =
  (tilt: number, f = 1500) =>
  (x: number, y: number): [number, number] => {
    const [dx, dy, dz] = [x - 120, y - 150, 500];
    const [c, s] = [Math.cos(tilt), Math.sin(tilt)];
    const [yy, zz] = [c * dy - s * dz, s * dy + c * dz];
    return [1000 + (f * dx) / zz, 750 + (f * yy) / zz];
  };
const tapsOf = (tilt: number, holes: readonly (readonly [number, number])[]): Tap[] =>
  holes.map(([xMm, yMm]) => {
    const [xPx, yPx] = seen(tilt)(xMm, yMm);
    return { xPx, yPx, xMm, yMm };
  });
const ground = (g: Ground | string): Ground => {
  if (typeof g === "string") throw new Error(g);
  return g;
};

describe("a photo as the ground", () => {
  it("four taps take the perspective out: any point of the board comes out where a camera worked out by hand saw it, and back", () => {
    fc.assert(
      fc.property(
        fc.double({ min: -0.6, max: 0.6, noNaN: true }),
        fc.double({ min: 0, max: 244, noNaN: true }),
        fc.double({ min: 0, max: 305, noNaN: true }),
        fc.constantFrom(4, 6, 8),
        (tilt, x, y, n) => {
          const corners = [HOLES[0], HOLES[2], HOLES[6], HOLES[7], HOLES[1], HOLES[4], HOLES[3], HOLES[5]].slice(0, n) as [number, number][];
          const g = ground(groundOf(tapsOf(tilt, corners)));
          const [px, py] = seen(tilt)(x, y);
          const [mx, my] = mmOf(g, px, py);
          expect(Math.hypot(mx - x, my - y)).toBeLessThan(1e-4);
          const [bx, by] = pxOf(g, x, y);
          expect(Math.hypot(bx - px, by - py)).toBeLessThan(1e-3);
          expect(g.offMm).toBeLessThan(1e-4);
        },
      ),
    );
  });
  it("two taps and a length give scale and turn; three a slanted look", () => {
    // 100 px are 50 mm, turned by a right angle: worked out by hand.
    const two = ground(
      groundOf([
        { xPx: 100, yPx: 100, xMm: 0, yMm: 0 },
        { xPx: 100, yPx: 200, xMm: 50, yMm: 0 },
      ]),
    );
    expect(mmOf(two, 100, 150).map((v) => Math.round(v * 1e6) / 1e6)).toEqual([25, 0]);
    expect(mmOf(two, 50, 100).map((v) => Math.round(v * 1e6) / 1e6)).toEqual([0, 25]);
    const three = ground(groundOf(tapsOf(0, [HOLES[0], HOLES[2], HOLES[6]])));
    expect(three.perspective).toBe(false);
    const [x, y] = mmOf(three, ...seen(0)(165, 163));
    expect([Math.round(x), Math.round(y)]).toEqual([165, 163]);
  });
  it("one tap that is a little off moves nothing far, and how far the taps are off is said", () => {
    const taps = tapsOf(0.3, HOLES).map((t, i) => (i === 3 ? { ...t, xPx: t.xPx + 6 } : t));
    const g = ground(groundOf(taps));
    expect(g.offMm).toBeGreaterThan(0.1);
    const [x, y] = mmOf(g, ...seen(0.3)(165, 163));
    expect(Math.hypot(x - 165, y - 163)).toBeLessThan(2);
  });
  it("points in a line, twice the same and too few are told in a sentence", () => {
    expect(groundOf(tapsOf(0, [HOLES[0], HOLES[1], HOLES[2]]))).toMatch(/in a line/);
    expect(groundOf(tapsOf(0, [HOLES[0], HOLES[1], HOLES[2], [100, 6]]))).toMatch(/in a line/);
    expect(groundOf(tapsOf(0, [HOLES[0], HOLES[0]]))).toMatch(/one place/);
    expect(groundOf(tapsOf(0, [HOLES[0]]))).toMatch(/two points/);
  });
  it("as a matrix of the style sheet a browser draws the same: the point of a hole comes to its millimetres", () => {
    const g = ground(groundOf(tapsOf(0.4, [HOLES[0], HOLES[2], HOLES[6], HOLES[7]])));
    const m = cssMatrix(g, 2).slice(9, -1).split(",").map(Number);
    const [x, y] = seen(0.4)(165, 163);
    const at = (i: number) => (m[i] ?? 0) * x + (m[i + 4] ?? 0) * y + (m[i + 12] ?? 0);
    expect([at(0) / at(3), at(1) / at(3)].map((v) => Math.round(v * 100) / 100)).toEqual([330, 326]);
  });
});
