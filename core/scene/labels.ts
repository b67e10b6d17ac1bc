/** A box in drawing units (px on screen, mm on paper). */
export interface Box {
  x: number;
  y: number;
  w: number;
  h: number;
}

export interface LabelWish {
  id: string;
  text: string;
  /** What it names. */
  at: Box;
  /** Lower comes first. */
  rank: number;
  /** It may stand within what it names, if that has room; only there, or beside it too. */
  inside?: "may" | "only";
}

export interface PlacedLabel {
  id: string;
  text: string;
  lines: string[];
  box: Box;
  inside: boolean;
  /** It reads from the bottom up: the box is as high as the words are long. */
  turned?: boolean;
  /** From what it names to the words, where they do not stand right at it. */
  leader?: { x1: number; y1: number; x2: number; y2: number };
}

export interface LabelRoom {
  /** The drawing's own bounds; words stay within them. */
  bounds: Box;
  /** What no word may cover. */
  keepClear: readonly Box[];
  /** Outlines that would run through a word: it stands elsewhere where there is room nearby. */
  outlines?: readonly Box[];
  /** Height of a line, and width of a letter as a share of it. */
  line: number;
  letter: number;
}

const overlaps = (a: Box, b: Box, gap = 0) => a.x < b.x + b.w + gap && b.x < a.x + a.w + gap && a.y < b.y + b.h + gap && b.y < a.y + a.h + gap;
const within = (a: Box, b: Box) => a.x >= b.x && a.y >= b.y && a.x + a.w <= b.x + b.w && a.y + a.h <= b.y + b.h;

/** So far from what it names a word is looked for through which no outline runs, before one is taken through which some do. */
const PLAIN_RINGS = 4;

/** Below this rank it is what somebody has chosen: it comes before all others, wherever it stands. */
const FIRST = 1;

/** Over ten letters a label breaks at an underscore or a blank; it is never shortened. */
export function labelLines(label: string): string[] {
  if (label.length <= 10) return [label];
  const under = label.lastIndexOf("_", 10);
  if (under > 0) return [label.slice(0, under + 1), label.slice(under + 1)];
  const words = label.split(" ");
  if (words.length === 1) return [label];
  const half = Math.ceil(label.length / 2);
  let at = 0;
  let n = 0;
  for (const [i, w] of words.entries()) {
    n += w.length + 1;
    if (n >= half) {
      at = i + 1;
      break;
    }
  }
  return at >= words.length ? [label] : [words.slice(0, at).join(" "), words.slice(at).join(" ")];
}

/** Does a straight line cut through a box: its ends are within it, or it crosses it. */
function cuts(l: { x1: number; y1: number; x2: number; y2: number }, b: Box): boolean {
  // Liang and Barsky's clipping of a line by a rectangle.
  let [t0, t1] = [0, 1];
  const [dx, dy] = [l.x2 - l.x1, l.y2 - l.y1];
  for (const [p, q] of [
    [-dx, l.x1 - b.x],
    [dx, b.x + b.w - l.x1],
    [-dy, l.y1 - b.y],
    [dy, b.y + b.h - l.y1],
  ] as const) {
    if (p === 0) {
      if (q < 0) return false;
      continue;
    }
    const t = q / p;
    if (p < 0) t0 = Math.max(t0, t);
    else t1 = Math.min(t1, t);
  }
  return t0 < t1;
}

/**
 * Words within or beside what they name, first come by rank; but those below the first that stand within come before those beside, for which
 * there is more than one place. No word covers another, a port or a leader; no leader crosses a word. What finds no
 * room is left out, and shows when it is pointed at. Same wishes, same places.
 */
export function placeLabels(wishes: readonly LabelWish[], room: LabelRoom): PlacedLabel[] {
  const out: PlacedLabel[] = [];
  const leaders: { x1: number; y1: number; x2: number; y2: number }[] = [];
  const order = [...wishes].sort((a, b) => a.rank - b.rank || (a.id < b.id ? -1 : 1));
  const isFree = (box: Box, own: Box, inside: boolean) =>
    within(box, room.bounds) &&
    out.every((o) => !overlaps(box, o.box, 1)) &&
    leaders.every((l) => !cuts(l, box)) &&
    (inside || room.keepClear.every((k) => k === own || !overlaps(box, k)));
  const put = (made: PlacedLabel | undefined): boolean => {
    if (made) out.push(made);
    if (made?.leader) leaders.push(made.leader);
    return made !== undefined;
  };
  const standsIn = (w: LabelWish) => put(insideOf(w, labelLines(w.text), room, isFree));
  const beside = (w: LabelWish) => w.inside !== "only" && put(besideOf(w, labelLines(w.text), room, isFree, out, leaders));
  for (const w of order) if (w.rank < FIRST) standsIn(w) || beside(w);
  const left = order.filter((w) => w.rank >= FIRST && !standsIn(w));
  for (const w of left) beside(w);
  return out;
}

function insideOf(w: LabelWish, lines: string[], room: LabelRoom, isFree: (b: Box, own: Box, inside: boolean) => boolean): PlacedLabel | undefined {
  if (!w.inside) return undefined;
  for (const some of [[w.text], lines]) {
    const size = { w: Math.max(...some.map((t) => t.length)) * room.line * room.letter + 2, h: some.length * room.line };
    if (size.w > w.at.w - 4 || size.h > w.at.h - 2) continue;
    for (const y of [w.at.y + w.at.h / 2 - size.h / 2, w.at.y + 3, w.at.y + w.at.h - size.h - 3]) {
      const box = { x: w.at.x + w.at.w / 2 - size.w / 2, y, ...size };
      if (isFree(box, w.at, true)) return { id: w.id, text: w.text, lines: some, box, inside: true };
    }
  }
  return turnedIn(w, room, isFree);
}

/** In something high and narrow the words read from the bottom up, as on any drawing. */
function turnedIn(w: LabelWish, room: LabelRoom, isFree: (b: Box, own: Box, inside: boolean) => boolean): PlacedLabel | undefined {
  const size = { w: room.line, h: w.text.length * room.line * room.letter + 2 };
  if (w.at.h < 2 * w.at.w || size.w > w.at.w - 2 || size.h > w.at.h - 4) return undefined;
  for (const y of [w.at.y + w.at.h / 2 - size.h / 2, w.at.y + w.at.h - size.h - 3, w.at.y + 3]) {
    const box = { x: w.at.x + w.at.w / 2 - size.w / 2, y, ...size };
    // Where marks stand in it the words keep clear of them: they are longer than it is wide.
    if (isFree(box, w.at, false)) return { id: w.id, text: w.text, lines: [w.text], box, inside: true, turned: true };
  }
  return undefined;
}

function besideOf(
  w: LabelWish,
  lines: string[],
  room: LabelRoom,
  isFree: (b: Box, own: Box, inside: boolean) => boolean,
  placed: readonly PlacedLabel[],
  leaders: readonly { x1: number; y1: number; x2: number; y2: number }[],
): PlacedLabel | undefined {
  const size = { w: Math.max(...lines.map((t) => t.length)) * room.line * room.letter + 2, h: lines.length * room.line };
  const { x, y, w: aw, h: ah } = w.at;
  const [cx, cy] = [x + aw / 2, y + ah / 2];
  const gap = room.line * 0.3;
  const crossed = (b: Box) => (room.outlines ?? []).some((o) => o !== w.at && overlaps(b, o) && !within(b, o));
  const rings = Array.from({ length: 9 }, (_, ring) => ring);
  for (const { ring, plain } of [
    ...rings.slice(0, PLAIN_RINGS).map((ring) => ({ ring, plain: true })),
    ...rings.map((ring) => ({ ring, plain: false })),
  ]) {
    const d = gap + ring * room.line * 0.9;
    const upright: [number, number][] = [
      [cx - size.w / 2, y - d - size.h],
      [cx - size.w / 2, y + ah + d],
    ];
    const level: [number, number][] = [
      [x + aw + d, cy - size.h / 2],
      [x - d - size.w, cy - size.h / 2],
    ];
    // What stands upright is named at its side, in its middle.
    const places: [number, number][] = [
      ...(ah > 1.5 * aw ? [...level, ...upright] : [...upright, ...level]),
      ...(ring > 0
        ? ([
            [x + aw + d, y - d - size.h],
            [x - d - size.w, y - d - size.h],
            [x + aw + d, y + ah + d],
            [x - d - size.w, y + ah + d],
            [cx, y - d - size.h],
            [cx - size.w, y - d - size.h],
            [cx, y + ah + d],
            [cx - size.w, y + ah + d],
          ] as [number, number][])
        : []),
    ];
    for (const [bx, by] of places) {
      const box = { x: bx, y: by, ...size };
      if (!isFree(box, w.at, false) || (plain && crossed(box))) continue;
      if (ring === 0) return { id: w.id, text: w.text, lines, box, inside: false };
      const leader = {
        x1: cx,
        y1: cy,
        x2: Math.min(Math.max(cx, box.x), box.x + box.w),
        y2: box.y + box.h < cy ? box.y + box.h : box.y > cy ? box.y : box.y + box.h / 2,
      };
      if (box.y <= cy && box.y + box.h >= cy) leader.x2 = box.x > cx ? box.x : box.x + box.w;
      if (placed.some((p) => cuts(leader, p.box))) continue;
      if (leaders.some((l) => l.x1 === leader.x1 && l.y1 === leader.y1 && l.x2 === leader.x2 && l.y2 === leader.y2)) continue;
      return { id: w.id, text: w.text, lines, box, inside: false, leader };
    }
  }
  return undefined;
}
