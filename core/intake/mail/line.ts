import type { PartKind } from "../../catalogue";
import type { ExtraKind } from "../language";
import { figuresFor, figuresIn, moneyIn, numberIn, type Said } from "./figures";
import { COLOURS, EACH, EXTRAS, extraIn, kindIn, NUMBER_WORDS, NUMBERS, OWN, PIECES, USED } from "./vocabulary";

/** One thing that a line asks for. */
export interface Wanted {
  /** Its words as they stand, without amount, price and bullet. */
  words: string;
  kind?: PartKind;
  /** What of its kind: "liquid", "disk", "network". */
  fits?: string;
  extra?: ExtraKind;
  count: number;
  said: Said;
  /** For all of them together, in the client's money. */
  price?: number;
  /** The client has it, or it has been used before. */
  origin?: "own" | "used";
  /** From whom a used one is. */
  from?: string;
  serial?: string;
}

const BULLET = /^(?:[-*•–—·+>]+|\(?\d{1,2}[.)](?=\s)|[a-h]\)(?=\s)|[☐☑✓□■]\s*)\s*/u;
export const isBulleted = (t: string): boolean => BULLET.test(t.trim());
export const withoutBullet = (t: string): string => t.trim().replace(BULLET, "").replace(BULLET, "").trim();

const count = (s: string | undefined) => {
  const n = s === undefined ? undefined : (NUMBERS.get(s.toLowerCase()) ?? Number(s));
  return n !== undefined && n >= 0 && n <= 99 ? n : undefined;
};
const N = `\\d{1,2}|${NUMBER_WORDS}`;
/** What stands after a number that counts nothing: "120 mm", "8-core", "24-pin", "2 TB". */
const UNIT = "(?:mm|cm|gb|tb|w\\b|watts?|mhz|mt\\/s|cores?|core\\b|pin|slots?|leds?|inch|zoll|hz|rpm|fps|v\\b|db|kerne?)";
const FRONT: readonly RegExp[] = [
  new RegExp(`^(${N})\\s*(?:x|×|\\*|${PIECES})\\s+(?:of\\s+)?(.+)$`, "iu"),
  /^(\d{1,2})\s*[x×]\s*(?=[\p{L}])(.+)$/iu,
  /^(?:an?\s+)?(pair|couple)\s+of\s+(.+)$/iu,
  new RegExp(`^(${NUMBER_WORDS})\\s+(?!${UNIT})(.+)$`, "iu"),
  new RegExp(`^(\\d{1,2})\\s+(?!${UNIT}|[x×]|\\d)(\\p{L}.+)$`, "iu"),
];
const BACK: readonly RegExp[] = [
  new RegExp(`^(.+?)[\\s,]*\\(\\s*(?:x|×|qty\\.?:?\\s*)?(${N})\\s*(?:x|×|${PIECES})?\\s*\\)\\s*$`, "iu"),
  /^(.+?)[\s,;–-]+(?:qty\.?|quantity|count|anzahl|menge)\s*:?\s*(\d{1,2})\s*$/iu,
  new RegExp(`^(.+?)[\\s,;–-]+(${N})\\s*(?:x|×|${PIECES})[.\\s]*$`, "iu"),
  /^(.+?)\s+[x×*]\s*(\d{1,2})\s*$/u, // a capital X right before a figure is a model: "Borealis X5"
];
/** Modules and drives are written as so many of one size: 2x16GB. */
const KIT = /(?<![\w.])(\d{1,2})\s*[x×*]\s*(\d+(?:[.,]\d+)?\s*(?:GB|TB))\b/i;

/** All of it, and in how many pieces: "32 GB RAM (2 sticks)", "32GB kit of 2", "32 GB (2x16)". */
const TOGETHER =
  /(?<![\w.])(\d+(?:[.,]\d+)?)\s*GB\b([^()\d]*?)\(?\s*(?:kit of\s+(\d)(?!\d)|(?<!\d)(\d)\s*(?:[x×]\s*(\d+)\s*(?:GB)?|(?:sticks?|modules?|modul|riegel|dimms?|er[- ]kit))(?!\p{L}))\s*\)?/iu;

/** Amount and words of one thing. */
export function amountOf(text: string): { count: number; words: string; counted: boolean } {
  const t = text.trim();
  const together = /GB/i.test(t) ? TOGETHER.exec(t) : null;
  const n = count(together?.[3] ?? together?.[4]);
  if (together && n !== undefined && n > 1) {
    const all = Number((together[1] ?? "0").replace(",", "."));
    const each = together[5] ? Number(together[5]) : all / n;
    // Only what adds up is a kit: else the words stand as they are.
    if (each * n === all) {
      const rest = `${t.slice(0, together.index)}${each} GB${together[2] ?? ""} ${t.slice(together.index + together[0].length)}`;
      return { count: n, words: rest.replace(/\s+/g, " ").replace(/\s,/g, ",").trim(), counted: true };
    }
  }
  const kit = KIT.exec(t);
  if (kit) {
    const inner = amountOf(`${t.slice(0, kit.index)} ${kit[2] ?? ""} ${t.slice(kit.index + kit[0].length)}`.replace(/\s+/g, " "));
    return { ...inner, count: inner.count * (count(kit[1]) ?? 1), counted: true };
  }
  for (const r of FRONT) {
    const m = r.exec(t);
    const n = count(m?.[1]);
    if (m?.[2] && n !== undefined) return { count: n, words: m[2].trim(), counted: true };
  }
  for (const r of BACK) {
    const m = r.exec(t);
    const n = count(m?.[2]);
    if (m?.[1] && n !== undefined && /\p{L}/u.test(m[1])) return { count: n, words: m[1].trim(), counted: true };
  }
  return { count: 1, words: t, counted: false };
}

const SERIAL = /\b(?:s\/n|serial(?: no\.?| number)?|seriennummer)\s*:?\s*([A-Za-z0-9-]{3,40})/i;

/** One thing out of its words; `label` is what stood before a colon or in a table's first cell. */
export function wantedOf(text: string, label = ""): Wanted & { counted: boolean } {
  let rest = text;
  const serial = SERIAL.exec(rest)?.[1];
  if (serial) rest = rest.replace(SERIAL, " ");
  const own = OWN.test(rest) || OWN.test(label);
  const used = USED.exec(rest);
  let from: string | undefined;
  if (used) {
    const after = rest.slice(used.index + used[0].length);
    const said = /^[\s,:]*(?:from|von)?\s*((?:the|der|dem|a|my|mein\w*)?\s*[\p{L}][\p{L}\s'-]{1,40}?)(?=[,.;)(]|$)/iu.exec(after)?.[1]?.trim();
    if (/from|von|aus/i.test(used[0]) && said) {
      from = said;
      rest = `${rest.slice(0, used.index)} ${after.replace(said, " ")}`;
    } else rest = `${rest.slice(0, used.index)} ${after}`;
  }
  // What says that the client has it is no word of what it is, unless nothing else is.
  const bare = rest.replace(/\((?:[^()]*)\)/g, (all) => (OWN.test(all) || USED.test(all) ? " " : all)).replace(OWN, " ");
  const money = moneyIn(bare);
  const each = EACH.test(bare) || /@/.test(bare);
  const tidy = money.rest
    .replace(each ? EACH : /$^/, " ")
    .replace(/[@=]/g, " ")
    .replace(/\(\s*\)/g, " ")
    .replace(/[\s,;:–—-]+$/u, "")
    .replace(/^[\s,;:–—-]+/u, "")
    .replace(/\s+/g, " ")
    .trim();
  // "Fans 3 pcs 140 mm": the amount stands after the kind.
  const plainly = amountOf(tidy);
  const kindFirst = kindIn(tidy);
  const without = plainly.counted || !kindFirst.kind ? undefined : amountOf(kindFirst.rest.replace(/\s+/g, " ").trim());
  const amount =
    without?.counted && without.words !== "" ? { ...without, words: `${tidy.slice(kindFirst.at).split(/\s/)[0] ?? ""} ${without.words}` } : plainly;
  const words = amount.words.replace(/[\s,;:–—-]+$/u, "").trim();
  const said = figuresIn(words);
  const colour = words
    .toLowerCase()
    .split(/[^\p{L}]+/u)
    .find((w) => COLOURS.has(w));
  if (colour) said.colour = colour;
  const fromLabel = kindIn(label);
  const inWords = kindIn(words);
  const extra = extraIn(words) ?? extraIn(label);
  // A size of DDR is memory, whether anybody says so or not.
  const kind = fromLabel.kind ?? inWords.kind ?? (said.memory && said.sizeGb !== undefined && said.sizeGb <= 256 ? "memory" : undefined);
  const fits = fromLabel.kind && fromLabel.kind !== inWords.kind ? fromLabel.fits : (inWords.fits ?? fromLabel.fits);
  const sum = money.sums.at(-1);
  return {
    words: words === "" ? label.trim() : words,
    ...(kind ? { kind } : {}),
    ...(fits ? { fits } : {}),
    ...(extra && !fromLabel.kind && isExtra(words, inWords, extra) ? { extra } : {}),
    count: amount.count,
    said: figuresFor(said, kind),
    ...(sum === undefined ? {} : { price: each ? sum * Math.max(1, amount.count) : sum }),
    ...(own ? { origin: "own" as const } : used ? { origin: "used" as const } : {}),
    ...(from ? { from } : {}),
    ...(serial ? { serial } : {}),
    counted: amount.counted,
  };
}

/** "USB stick 64 GB" is no drive, "monitor" no card; "graphics card with 3 display outputs" is no monitor. */
function isExtra(words: string, kind: ReturnType<typeof kindIn>, extra: ExtraKind): boolean {
  if (!kind.kind) return true;
  if (extra === "stick" || extra === "licence" || extra === "paste") return true;
  // Whatever is named first is what it is.
  const named = EXTRAS.find((e) => e.what === extra)?.is.exec(words)?.index ?? 0;
  return named < kind.at;
}

/** Cells of a row of a table, or undefined where it is none: by tabs, bars, semicolons, or wide gaps. */
export function cellsOf(text: string): string[] | undefined {
  const by = (r: RegExp, least: number) => {
    const cells = text.split(r).map((c) => c.trim());
    return cells.filter(Boolean).length >= least ? cells : undefined;
  };
  if (/^[\s|+:=-]*$/.test(text)) return undefined;
  if (text.includes("\t")) return by(/\t+/, 2);
  if ((text.match(/\|/g) ?? []).length >= 2 || /\S\s\|\s\S/.test(text))
    return by(/\|/, 2)?.filter((c, i, a) => c !== "" || (i > 0 && i < a.length - 1));
  if ((text.match(/;/g) ?? []).length >= 2) return by(/;/, 2);
  return by(/\s{3,}/, 2);
}

/** A row of a table without a heading: what kind, what, how many, for how much. */
export function rowOf(
  cells: readonly string[],
  columns: readonly (string | undefined)[] | undefined,
): { label: string; text: string; count?: number; price?: number; serial?: string } {
  const at = (c: string) => {
    const i = columns?.indexOf(c) ?? -1;
    return i >= 0 ? cells[i]?.trim() : undefined;
  };
  if (columns) {
    const n = Number(at("count"));
    const sum = (c: string) => numberIn((at(c) ?? "").replace(/[^\d.,' ]/g, "").trim());
    // A price beside an amount is that of one; a sum is that of all.
    const one = sum("each");
    const price = sum("price") ?? (one === undefined ? undefined : Math.round(one * 100 * (Number.isInteger(n) && n > 0 ? n : 1)) / 100);
    const what = at("what");
    const part = at("part");
    const serial = at("serial");
    return {
      label: what ? (part ?? "") : "",
      text: what ?? part ?? cells.find((c) => /\p{L}/u.test(c)) ?? "",
      ...(Number.isInteger(n) && at("count") !== "" ? { count: n } : {}),
      ...(price === undefined ? {} : { price }),
      ...(serial ? { serial } : {}),
    };
  }
  const words = cells.filter((c) => /\p{L}/u.test(c) && moneyIn(c).rest.trim() !== "");
  const label = words.length > 1 && kindIn(words[0] ?? "").rest.trim() === "" ? (words[0] ?? "") : "";
  const rest = label ? words.slice(1) : words;
  const counts = cells.filter((c) => /^\d{1,2}\s*(?:x|×)?$/.test(c)).map((c) => Number.parseInt(c, 10));
  const sums = cells.flatMap((c) =>
    /\p{L}{4,}/u.test(c) ? [] : [...moneyIn(c).sums, ...(/^\d[\d.,' ]*[.,]\d{2}$/.test(c) ? [numberIn(c) ?? 0] : [])],
  );
  return {
    label,
    text: rest.join(", "),
    ...(counts[0] === undefined ? {} : { count: counts[0] }),
    ...(sums.length > 0 ? { price: sums.at(-1) as number } : {}),
  };
}
