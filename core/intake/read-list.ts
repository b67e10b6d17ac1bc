import type { PartKind, PartType } from "../catalogue";

/** A row of a pasted list or a CSV after its columns were named. */
export interface ListRow {
  line: number;
  text: string;
  count: number;
  serial?: string;
}

export interface Matched {
  row: ListRow;
  type: Listed;
}

export interface ReadList {
  matched: Matched[];
  /** Rows that no part type answers to, or more than one: kept aside, in their own words. */
  aside: { row: ListRow; because: string; near: { id: string; name: string }[] }[];
}

/** Words for a kind of part, as lists and mails write them; longer ones first, so that "cpu cooler" is a cooler. */
const KIND_WORDS: readonly [RegExp, PartKind][] = [
  [/\b(power supply( unit)?|psu)\b/i, "supply"],
  [/\b(cpu cooler|liquid cooler|air cooler|water cooling|aio|cooler|heatsink)\b/i, "cooler"],
  [/\b(mother ?board|main ?board|mobo)\b/i, "board"],
  [/\b(graphics card|video card|gpu|vga)\b/i, "card"],
  [/\b(processor|cpu)\b/i, "cpu"],
  [/\b(memory|ram|dimms?|memory kit)\b/i, "memory"],
  [/\b(hard (disk|drive)|solid state drive|hdd|ssd|nvme|storage)\b/i, "drive"],
  [/\b(case fans?|fans?)\b/i, "fan"],
  [/\b(pc case|computer case|chassis|enclosure|case)\b/i, "case"],
  [/\b(led strips?|light strips?|lighting)\b/i, "lighting"],
];

/** `2 x Whirrow 120`, `Whirrow 120 (2)`, `Lathewell 2x16GB`, `3 pcs Vault 8 TB`, `PSU: Mossgate 750W`: count and words of one pasted line. */
export function pastedLine(text: string, line: number): ListRow | undefined {
  const clean = text.replace(/^[\s*•\-–]+/, "").trim();
  if (clean === "") return undefined;
  const row = (words: string, count: string | undefined): ListRow => ({ line, text: words.replace(/\s+/g, " ").trim(), count: Number(count ?? 1) });
  // What kind it is may stand before, with a colon: the count comes after it.
  const [, label, rest] = /^([A-Za-z][A-Za-z ./]{1,30}):\s+(.+)$/.exec(clean) ?? [];
  if (label && rest && KIND_WORDS.some(([r]) => r.test(label))) {
    const inner = pastedLine(rest, line);
    return inner && { ...inner, text: `${label} ${inner.text}` };
  }
  const front = /^(\d{1,2})\s*(?:x|×|pcs\.?|pieces?|stk\.?|off)\s+(.+)$/i.exec(clean) ?? /^(\d{1,2})\s*[x×]\s*(.+)$/i.exec(clean);
  if (front?.[2]) return row(front[2], front[1]);
  const back =
    /^(.+?)\s*(?:\((?:x|×|qty:?)?\s*(\d{1,2})\s*(?:x|×|pcs\.?)?\)|,?\s*qty:?\s*(\d{1,2})|,\s*(\d{1,2})\s*(?:pcs\.?|pieces?|x|×)|\s[x×]\s*(\d{1,2}))$/i.exec(
      clean,
    );
  if (back?.[1]) return row(back[1], back[2] ?? back[3] ?? back[4] ?? back[5]);
  // Modules are written as so many of one size: 2x16GB.
  const kit = /^(.*?)\b(\d{1,2})\s*[x×]\s*(\d+\s*GB)\b(.*)$/i.exec(clean);
  if (kit) return row(`${kit[1] ?? ""} ${kit[3] ?? ""} ${kit[4] ?? ""}`, kit[2]);
  return row(clean, undefined);
}

/** Words of a line in one spelling, sizes too. */
export const plain = (s: string) =>
  sizes(s)
    .replace(/ß/g, "ss")
    .normalize("NFKD")
    .replace(/\p{M}+/gu, "")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, " ")
    .trim();

/** Sizes in one spelling: `2TB`, `2 TB` and `2000 GB` are 2000gb; `750 W` and `750watt` are 750w. */
function sizes(s: string): string {
  return s
    .replace(
      /(\d+(?:[.,]\d+)?)\s*(TB|GB)\b/gi,
      (_, n: string, unit: string) => ` ${Number(n.replace(",", ".")) * (unit.toUpperCase() === "TB" ? 1000 : 1)}gb `,
    )
    .replace(/(\d{2,4})\s*(?:watts?|W)\b/gi, " $1w ")
    .replace(/(\d{2,3})\s*mm\b/gi, " $1mm ")
    .replace(/(\d{4})\s*(?:MT\/s|MHz)\b/gi, " $1 ");
}

const isSize = (w: string) => /^\d+(?:gb|w|mm)$/.test(w);

/** What of an entry's figures people write as a size. */
function sizeWords(t: Listed): string[] {
  const r = t.ratings;
  return [
    ...(r.sizeGb === undefined ? [] : [`${r.sizeGb}gb`]),
    ...(t.kind === "supply" && r.powerW !== undefined ? [`${r.powerW}w`] : []),
    ...(t.body.radiator
      ? [`${Math.round(t.body.radiator.fans * t.body.radiator.fanMm)}mm`, String(t.body.radiator.fans * t.body.radiator.fanMm)]
      : []),
    ...(t.kind === "fan" && t.body.widthMm !== undefined ? [`${t.body.widthMm}mm`] : []),
    ...(r.profileMts === undefined ? [] : [String(r.profileMts)]),
  ];
}

/** The kind that a line names, and the line without that word. */
function kindOf(text: string): { kind: PartKind | undefined; rest: string } {
  for (const [word, kind] of KIND_WORDS) if (word.test(text)) return { kind, rest: text.replace(word, " ") };
  return { kind: undefined, rest: text };
}

/**
 * Rows against the shelf: by id, by full name, else by all words of the row standing in the name, its kind and its sizes. A row
 * that more than one type answers to is not guessed; suggestions of the same size come first.
 */
export const matchRows = (rows: readonly ListRow[], shelf: readonly Listed[]): ReadList => readAgainst(rows, shelfIndex(shelf));

/** What of a part type decides whether a row means it; of a whole shelf that is little to read. */
export type Listed = Pick<PartType, "id" | "maker" | "name" | "kind"> & {
  ratings: Pick<PartType["ratings"], "sizeGb" | "powerW" | "profileMts">;
  body: Pick<PartType["body"], "radiator" | "widthMm" | "formFactor">;
};
export interface Entry {
  t: Listed;
  /** In the order of ids. */
  n: number;
}

/** A shelf by what rows say of it (inverted index): made once, it answers each row by the entries that share something with it. */
export interface ShelfIndex {
  entries: readonly Entry[];
  byName: ReadonlyMap<string, readonly Entry[]>;
  byWord: ReadonlyMap<string, readonly Entry[]>;
}

const byId = (a: Listed, b: Listed) => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0);

export function shelfIndex(shelf: readonly Listed[]): ShelfIndex {
  const [byName, byWord] = [new Map<string, Entry[]>(), new Map<string, Entry[]>()];
  const put = (map: Map<string, Entry[]>, key: string, e: Entry) => {
    const list = map.get(key);
    if (list) list.push(e);
    else map.set(key, [e]);
  };
  // By their names: the same list is read alike, in whatever order a database gives its rows.
  const entries = [...shelf].sort(byId).map((t, n) => {
    const e = { t, n };
    for (const name of new Set([plain(t.id), plain(t.name), plain(`${t.maker} ${t.name}`)])) put(byName, name, e);
    for (const word of new Set([...plain(`${t.maker} ${t.name} ${t.id}`).split(" "), ...sizeWords(t)])) put(byWord, word, e);
    return e;
  });
  return { entries, byName, byWord };
}

const NONE: readonly Entry[] = [];

/** Entries in which all these words stand. */
function withAll({ byWord }: ShelfIndex, words: readonly string[], kind?: PartKind): Entry[] {
  const lists = words.map((w) => byWord.get(w) ?? NONE).sort((a, b) => a.length - b.length);
  const [first, ...others] = lists;
  if (!first) return [];
  const sets = others.map((l) => new Set(l));
  return first.filter((e) => (kind === undefined || e.t.kind === kind) && sets.every((s) => s.has(e)));
}

/** Rows against a shelf that was indexed. */
export function readAgainst(rows: readonly ListRow[], index: ShelfIndex): ReadList {
  const out: ReadList = { matched: [], aside: [] };
  for (const row of rows) {
    const want = plain(row.text);
    const { kind, rest } = kindOf(row.text);
    const words = [...new Set(plain(rest).split(" ").filter(Boolean))];
    const exact = want === "" ? NONE : (index.byName.get(want) ?? NONE);
    const named = exact.length > 0 ? exact : withAll(index, words, kind);
    const loose = named.length > 0 ? named : withAll(index, [...new Set(want.split(" ").filter(Boolean))]);
    if (row.count < 1) {
      out.aside.push({ row, because: `a count of ${row.count}`, near: [] });
    } else if (want !== "" && loose.length === 1 && loose[0]) {
      out.matched.push({ row, type: loose[0].t });
    } else {
      const near = (loose.length > 1 ? loose : nearest(index, words, kind)).slice(0, MOST_NEAR).map((e) => ({ id: e.t.id, name: e.t.name }));
      out.aside.push({
        row,
        because: loose.length > 1 ? `${loose.length} part types answer to it` : "the shelf has nothing like it",
        near,
      });
    }
  }
  return out;
}

/** Entries that share most with a row: those of its sizes first, then by words; where only the kind is named, those of the kind. */
function nearest(index: ShelfIndex, words: readonly string[], kind: PartKind | undefined): Entry[] {
  const shared = new Map<Entry, { size: number; n: number }>();
  for (const w of words)
    for (const e of index.byWord.get(w) ?? NONE) {
      if (kind !== undefined && e.t.kind !== kind) continue;
      const has = shared.get(e) ?? { size: 0, n: 0 };
      shared.set(e, { size: has.size + (isSize(w) ? 1 : 0), n: has.n + 1 });
    }
  const best = [...shared].sort(([a, x], [b, y]) => y.size - x.size || y.n - x.n || a.n - b.n).map(([e]) => e);
  if (kind === undefined || best.length >= MOST_NEAR) return best;
  return [...best, ...index.entries.filter((e) => e.t.kind === kind && !shared.has(e)).slice(0, MOST_NEAR)];
}
/** So many are suggested at most. */
const MOST_NEAR = 5;

/** Ids for parts that join a job: the kind and a number, never one that is taken. */
export function partIds(kinds: readonly PartKind[], taken: ReadonlySet<string>): string[] {
  const used = new Set(taken);
  const single = new Set<PartKind>(["case", "board", "cpu", "supply", "cooler"]);
  return kinds.map((kind) => {
    if (single.has(kind) && !used.has(kind)) {
      used.add(kind);
      return kind;
    }
    for (let n = 1; ; n++) {
      const id = `${kind === "memory" ? "mem" : kind}-${n}`;
      if (used.has(id)) continue;
      used.add(id);
      return id;
    }
  });
}

/** Has it its place by a seat of its own, such as a drive that is a module? */
export const isSeated = (t: Pick<PartType, "leads">): boolean => t.leads.some((l) => l.role === "seat");

/** Free mounts of the case for parts that hang in one, in the case's own order: intake first, then exhaust. */
export function proposeMounts(
  shell: PartType | undefined,
  parts: readonly { id: string; kind: PartKind; sizeMm?: number; mount?: string; seated?: boolean }[],
): Map<string, string> {
  const out = new Map<string, string>();
  const used = new Set(parts.flatMap((p) => p.mount ?? []));
  for (const p of parts) {
    const what = p.kind === "fan" || p.kind === "drive" || p.kind === "hub" || p.kind === "lighting" ? p.kind : undefined;
    // A module has its seat on the board and hangs nowhere.
    if (!what || p.mount || p.seated) continue;
    const mount = shell?.body.mounts.find(
      (m) => m.takes.includes(what) && !used.has(m.id) && (what !== "fan" || m.sizeMm === undefined || (p.sizeMm ?? 0) <= m.sizeMm),
    );
    if (!mount) continue;
    used.add(mount.id);
    out.set(p.id, mount.id);
  }
  return out;
}
