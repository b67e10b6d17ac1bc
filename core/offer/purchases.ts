import { type Build, naturally, type TypeLookup } from "../assembly";
import { fullName, PART_KINDS, type PartType } from "../catalogue";
import { writeCsv } from "../table";

/** What is known of how a part comes, dates as YYYY-MM-DD. */
export interface Bought {
  /** The part of the build. */
  part: string;
  supplier?: string | undefined;
  priceFrom?: string | undefined;
  priceOn?: string | undefined;
  /** How soon it can be had, in the supplier's words. */
  availability?: string | undefined;
  orderedOn?: string | undefined;
  expectedOn?: string | undefined;
  /** It is here. */
  arrived: boolean;
}

/** Equal parts of a list as one buys them: of one type, at one price, from one supplier, ordered alike. */
export interface Purchase {
  type: string;
  name: string;
  kind: PartType["kind"];
  parts: string[];
  /** `own`: the client has it; `shelf`: taken from stock. */
  from: "buy" | "own" | "shelf";
  /** The shop's money, for one. */
  each?: number;
  supplier?: string;
  priceFrom?: string;
  priceOn?: string;
  availability?: string;
  orderedOn?: string;
  expectedOn?: string;
  /** How many of them are here. */
  arrived: number;
  /** Some of its values are only assumed. */
  provisional: boolean;
}

/** The parts list as it is bought, kind by kind as one builds. */
export function purchases(build: Build, types: TypeLookup, bought: readonly Bought[]): Purchase[] {
  const known = new Map(bought.map((b) => [b.part, b]));
  const rows = new Map<string, Purchase>();
  for (const p of build.parts) {
    const t = types(p.type);
    const b = known.get(p.id);
    const from = p.reused ? "own" : p.from === "shelf" ? "shelf" : "buy";
    const said = {
      each: p.price,
      supplier: b?.supplier,
      priceFrom: b?.priceFrom,
      priceOn: b?.priceOn,
      availability: b?.availability,
      orderedOn: b?.orderedOn,
      expectedOn: b?.expectedOn,
    };
    const key = JSON.stringify([p.type, from, ...Object.values(said).map((v) => v ?? null)]);
    const row = rows.get(key) ?? {
      type: p.type,
      name: t ? fullName(t) : p.type,
      kind: t?.kind ?? "cable",
      parts: [],
      from,
      arrived: 0,
      provisional: Object.values(t?.figures ?? {}).some((f) => f.is === "typical"),
      ...(Object.fromEntries(Object.entries(said).filter(([, v]) => v !== undefined)) as Partial<Purchase>),
    };
    row.parts.push(p.id);
    if (b?.arrived) row.arrived++;
    rows.set(key, row);
  }
  return [...rows.values()].sort((a, b) => PART_KINDS.indexOf(a.kind) - PART_KINDS.indexOf(b.kind) || naturally(a.parts[0] ?? "", b.parts[0] ?? ""));
}

export interface Spent {
  /** What the priced ones cost together. */
  sum: number;
  /** Lines to buy without a price. */
  unpriced: number;
  budget?: number;
  /** What is left of the budget; below zero: too much. */
  left?: number;
  /** Lines that are bought and not here yet, and how many of those are ordered. */
  open: number;
  ordered: number;
  /** The last day on which something is expected. */
  lastOn?: string;
}

/** The sum of a list against what the client wants to spend, and how far its ordering is. Hundredths are added, not fractions. */
export function spent(rows: readonly Purchase[], budget?: number): Spent {
  const buy = rows.filter((r) => r.from !== "own");
  const cents = buy.reduce((n, r) => n + Math.round((r.each ?? 0) * 100) * r.parts.length, 0);
  const open = buy.filter((r) => r.from === "buy" && r.arrived < r.parts.length);
  const days = open.flatMap((r) => r.expectedOn ?? []).sort();
  const lastOn = days.at(-1);
  return {
    sum: cents / 100,
    unpriced: buy.filter((r) => r.each === undefined).length,
    ...(budget === undefined ? {} : { budget, left: (Math.round(budget * 100) - cents) / 100 }),
    open: open.length,
    ordered: open.filter((r) => r.orderedOn !== undefined).length,
    ...(lastOn ? { lastOn } : {}),
  };
}

const day = (v: string | undefined) => v ?? "";
const money = (v: number | undefined) => (v === undefined ? "" : v.toFixed(2));

/** What is still to be bought, as a table to order from (RFC 4180), supplier by supplier. */
export function asCsv(rows: readonly Purchase[], besides: readonly { what: string; count: number; from: string }[]): string {
  const open = rows
    .filter((r) => r.from === "buy" && r.arrived < r.parts.length)
    .sort((a, b) => ((a.supplier ?? "") < (b.supplier ?? "") ? -1 : (a.supplier ?? "") > (b.supplier ?? "") ? 1 : 0));
  return writeCsv(
    ["supplier", "count", "what", "kind", "each", "sum", "price from", "price on", "availability", "ordered on", "expected on"],
    [
      ...open.map((r) => {
        const count = r.parts.length - r.arrived;
        const sum = r.each === undefined ? undefined : (Math.round(r.each * 100) * count) / 100;
        return [
          r.supplier ?? "",
          String(count),
          r.name,
          r.kind,
          money(r.each),
          money(sum),
          r.priceFrom ?? "",
          day(r.priceOn),
          r.availability ?? "",
          day(r.orderedOn),
          day(r.expectedOn),
        ];
      }),
      ...besides.filter((b) => b.from === "order").map((b) => ["", String(b.count), b.what, "besides", "", "", "", "", "", "", ""]),
    ],
  );
}
