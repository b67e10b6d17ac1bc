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

/** `2 x Whirrow 120`, `Whirrow 120 (2)`, `3 Vault 8 TB`: count and name of one pasted line. */
export function pastedLine(text: string, line: number): ListRow | undefined {
  const clean = text.replace(/^[\s*•\-–]+/, "").trim();
  if (clean === "") return undefined;
  const front = /^(\d{1,2})\s*(?:x|×)\s*(.+)$/i.exec(clean);
  const back = /^(.+?)\s*(?:\((\d{1,2})\)|[x×]\s*(\d{1,2}))$/i.exec(clean);
  if (front?.[1] && front[2]) return { line, text: front[2].trim(), count: Number(front[1]) };
  if (back?.[1]) return { line, text: back[1].trim(), count: Number(back[2] ?? back[3]) };
  return { line, text: clean, count: 1 };
}

const plain = (s: string) =>
  s
    .normalize("NFKD")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, " ")
    .trim();

/**
 * Rows against the shelf: by id, by full name, else by all words of the row standing in the name. A row that more than
 * one type answers to is not guessed.
 */
export function matchRows(rows: readonly ListRow[], shelf: readonly PartType[]): ReadList {
  const entries = shelf.map((t) => ({
    t,
    id: plain(t.id),
    name: plain(t.name),
    full: plain(`${t.maker} ${t.name}`),
    words: new Set(plain(`${t.maker} ${t.name} ${t.id}`).split(" ")),
  }));
  const out: ReadList = { matched: [], aside: [] };
  for (const row of rows) {
    const want = plain(row.text);
    const exact = entries.filter((e) => e.id === want || e.full === want || e.name === want);
    const words = want.split(" ").filter(Boolean);
    const loose = exact.length > 0 ? exact : entries.filter((e) => words.every((w) => e.words.has(w)));
    if (row.count < 1) {
      out.aside.push({ row, because: `a count of ${row.count}`, near: [] });
    } else if (want !== "" && loose.length === 1 && loose[0]) {
      out.matched.push({ row, type: loose[0].t });
    } else {
      const near = (loose.length > 1 ? loose : nearest(entries, words)).slice(0, 5).map((e) => ({ id: e.t.id, name: e.t.name }));
      out.aside.push({
        row,
        because: loose.length > 1 ? `${loose.length} part types answer to it` : "no part type of the shelf answers to it",
        near,
      });
    }
  }
  return out;
}

function nearest<E extends { words: Set<string> }>(entries: readonly E[], words: readonly string[]): E[] {
  return entries
    .map((e) => ({ e, n: words.filter((w) => e.words.has(w)).length }))
    .filter((x) => x.n > 0)
    .sort((a, b) => b.n - a.n)
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
