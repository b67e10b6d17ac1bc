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
  type: PartType;
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

const plain = (s: string) =>
  sizes(s)
    .normalize("NFKD")
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
function sizeWords(t: PartType): string[] {
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
export function matchRows(rows: readonly ListRow[], shelf: readonly PartType[]): ReadList {
  const entries = shelf.map((t) => ({
    t,
    id: plain(t.id),
    name: plain(t.name),
    full: plain(`${t.maker} ${t.name}`),
    words: new Set([...plain(`${t.maker} ${t.name} ${t.id}`).split(" "), ...sizeWords(t)]),
  }));
  const out: ReadList = { matched: [], aside: [] };
  for (const row of rows) {
    const want = plain(row.text);
    const { kind, rest } = kindOf(row.text);
    const words = plain(rest).split(" ").filter(Boolean);
    const ofKind = entries.filter((e) => kind === undefined || e.t.kind === kind);
    const exact = entries.filter((e) => e.id === want || e.full === want || e.name === want);
    const named = words.length > 0 ? ofKind.filter((e) => words.every((w) => e.words.has(w))) : [];
    const loose =
      exact.length > 0 ? exact : named.length > 0 ? named : entries.filter((e) => want !== "" && want.split(" ").every((w) => e.words.has(w)));
    if (row.count < 1) {
      out.aside.push({ row, because: `a count of ${row.count}`, near: [] });
    } else if (want !== "" && loose.length === 1 && loose[0]) {
      out.matched.push({ row, type: loose[0].t });
    } else {
      const near = (loose.length > 1 ? loose : nearest(ofKind, words, kind)).slice(0, 5).map((e) => ({ id: e.t.id, name: e.t.name }));
      out.aside.push({
        row,
        because: loose.length > 1 ? `${loose.length} part types answer to it` : "no part type of the shelf answers to it",
        near,
      });
    }
  }
  return out;
}

/** Entries that share most with a row: those of its sizes first, then by words; where only the kind is named, those of the kind. */
function nearest<E extends { words: Set<string>; t: PartType }>(entries: readonly E[], words: readonly string[], kind: PartKind | undefined): E[] {
  const asked = words.filter(isSize);
  return entries
    .map((e) => ({ e, size: asked.filter((w) => e.words.has(w)).length, n: words.filter((w) => e.words.has(w)).length }))
    .filter((x) => x.n > 0 || (kind !== undefined && x.e.t.kind === kind))
    .sort((a, b) => b.size - a.size || b.n - a.n)
    .map((x) => x.e);
}

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

/** Free mounts of the case for parts that hang in one, in the case's own order: intake first, then exhaust. */
export function proposeMounts(
  shell: PartType | undefined,
  parts: readonly { id: string; kind: PartKind; sizeMm?: number; mount?: string }[],
): Map<string, string> {
  const out = new Map<string, string>();
  const used = new Set(parts.flatMap((p) => p.mount ?? []));
  for (const p of parts) {
    const what = p.kind === "fan" || p.kind === "drive" || p.kind === "hub" || p.kind === "lighting" ? p.kind : undefined;
    if (!what || p.mount) continue;
    const mount = shell?.body.mounts.find(
      (m) => m.takes.includes(what) && !used.has(m.id) && (what !== "fan" || m.sizeMm === undefined || (p.sizeMm ?? 0) <= m.sizeMm),
    );
    if (!mount) continue;
    used.add(mount.id);
    out.set(p.id, mount.id);
  }
  return out;
}
