import type { PartType } from "../../catalogue";

/** What a line says of a part, in the units of a part type. Left out: not said. */
export interface Said {
  sizeGb?: number;
  /** Watts: what a supply gives, what a processor or card draws, what a cooler carries. */
  watts?: number;
  mts?: number;
  memory?: string;
  /** Side of a fan. */
  fanMm?: number;
  /** Length of a radiator by its fans: 240, 280, 360. */
  radiatorMm?: number;
  /** Any other length that is said: of a card, of a cooler's height, of a lead. */
  lengthMm?: number;
  form?: string;
  cores?: number;
  socket?: string;
  drive?: "M.2" | "2.5" | "3.5";
  protocol?: "nvme" | "sata";
  efficiency?: PartType["ratings"]["efficiency"];
  modular?: boolean;
  lit?: boolean;
  colour?: string;
  slots?: number;
  leds?: number;
  wireless?: boolean;
}

/** A number as people write it: 1,830 · 1.830 · 1 830 · 1'830 · 129,90 · 129.90 · 2k. */
export function numberIn(text: string): number | undefined {
  const k = /^([\d.,]+)\s*k$/i.exec(text.trim());
  if (k?.[1]) {
    const n = Number(k[1].replace(",", "."));
    return Number.isFinite(n) ? n * 1000 : undefined;
  }
  const t = text.trim().replace(/[\s'’\u00a0]/g, "");
  if (!/^\d[\d.,]*$/.test(t)) return undefined;
  const last = Math.max(t.lastIndexOf(","), t.lastIndexOf("."));
  const tail = last < 0 ? "" : t.slice(last + 1);
  const whole = last < 0 ? t : t.slice(0, last);
  if (tail.length === 3 || last < 0) return Number(t.replace(/[.,]/g, ""));
  return Number(`${whole.replace(/[.,]/g, "")}.${tail || "0"}`);
}

const CURRENCY = "€|\\$|£|eur|usd|gbp|chf|euros?|dollars?|pounds?";
const AMOUNT = "\\d{1,3}(?:[ '’.,\\u00a0]\\d{3})+(?:[.,]\\d{1,2})?|\\d+(?:[.,]\\d{1,2})?";
const MONEY = new RegExp(
  `(?:(?:${CURRENCY})\\s*(${AMOUNT})(?:,-|\\.-)?(?![\\d]))|(?:(?<![\\w.,])(${AMOUNT})\\s*(?:(?:${CURRENCY})(?![a-z])|,-|\\.-))`,
  "gi",
);

/** Every sum of money in a text, and the text without them. */
export function moneyIn(text: string): { sums: number[]; rest: string } {
  const sums: number[] = [];
  const rest = text.replace(MONEY, (all, a: string | undefined, b: string | undefined) => {
    const n = numberIn(a ?? b ?? "");
    if (n === undefined) return all;
    sums.push(n);
    return " ";
  });
  return { sums, rest };
}

const FORMS: readonly (readonly [RegExp, string])[] = [
  [/\b(?:e-?atx|extended atx|eatx)\b/i, "E-ATX"],
  [/\b(?:mini[- ]?itx|m-?itx|itx)\b/i, "Mini-ITX"],
  [/\b(?:micro[- ]?atx|m-?atx|µatx|uatx|matx)\b/i, "microATX"],
  [/\bsfx-?l\b/i, "SFX-L"],
  [/\bsfx\b/i, "SFX"],
  [/\btfx\b/i, "TFX"],
  [/\batx\b/i, "ATX"],
];

const EFFICIENCY = ["bronze", "silver", "gold", "platinum", "titanium"] as const;

/** Figures that only say something of one kind. */
const ONLY: Partial<Record<keyof Said, readonly string[]>> = {
  radiatorMm: ["cooler"],
  fanMm: ["fan", "cooler", "case"],
  slots: ["card", "case"],
  protocol: ["drive"],
  drive: ["drive"],
};
/** Figures without those that say nothing of this kind. */
export const figuresFor = (said: Said, kind: string | undefined): Said =>
  kind === undefined ? said : (Object.fromEntries(Object.entries(said).filter(([k]) => ONLY[k as keyof Said]?.includes(kind) ?? true)) as Said);

const num = (s: string) => Number(s.replace(",", "."));

/** The figures of a line, whatever kind it is of; sizes of one spelling. */
export function figuresIn(text: string): Said {
  const out: Said = {};
  const of = (r: RegExp, put: (m: RegExpExecArray) => void) => {
    const m = r.exec(text);
    if (m) put(m);
  };
  of(/(\d+(?:[.,]\d+)?)\s*-?\s*TB\b/i, (m) => {
    out.sizeGb = num(m[1] ?? "0") * 1000;
  });
  of(/(\d+(?:[.,]\d+)?)\s*-?\s*GB\b/i, (m) => {
    out.sizeGb ??= num(m[1] ?? "0");
  });
  of(/\b(\d{2,4})\s*-?\s*(?:watts?|W)\b/i, (m) => {
    out.watts = num(m[1] ?? "0");
  });
  of(/\b(DDR[345])\b/i, (m) => {
    out.memory = (m[1] ?? "").toUpperCase();
  });
  of(/\bDDR[345]\s*-?\s*(\d{4,5})\b/i, (m) => {
    out.mts = num(m[1] ?? "0");
  });
  of(/\b(\d{4,5})\s*(?:MT\/s|MHz|MTs)\b/i, (m) => {
    out.mts ??= num(m[1] ?? "0");
  });
  of(/\b(80|92|120|140|200)\s*-?\s*mm\b/i, (m) => {
    out.fanMm = num(m[1] ?? "0");
  });
  of(/\b(120|140|240|280|360|420)\s*(?:mm)?(?=\s*(?:mm|aio|radiator|liquid|water|all|rad\b|wasser|kompakt|$))/i, (m) => {
    out.radiatorMm = num(m[1] ?? "0");
  });
  of(/\b(\d{2,4}(?:[.,]\d)?)\s*mm\b/i, (m) => {
    out.lengthMm = num(m[1] ?? "0");
  });
  of(/\b(\d{1,3}(?:[.,]\d)?)\s*cm\b/i, (m) => {
    out.lengthMm ??= num(m[1] ?? "0") * 10;
  });
  of(/\b(\d{1,3})\s*-?\s*(?:cores?|kerne?|kern)\b/i, (m) => {
    out.cores = num(m[1] ?? "0");
  });
  of(/\bsocket\s+([A-Za-z]{0,4}\d{1,4}[A-Za-z]{0,2})\b/i, (m) => {
    out.socket = (m[1] ?? "").toUpperCase();
  });
  of(/\bsockel\s+([A-Za-z]{0,4}\d{1,4}[A-Za-z]{0,2})\b/i, (m) => {
    out.socket ??= (m[1] ?? "").toUpperCase();
  });
  of(/\b(\d(?:[.,]\d+)?)\s*-?\s*slots?\b/i, (m) => {
    out.slots = num(m[1] ?? "0");
  });
  of(/\b(\d{1,3})\s*LEDs?\b/i, (m) => {
    out.leds = num(m[1] ?? "0");
  });
  if (/\bM\.?2\b/i.test(text) || /\bnvme\b/i.test(text)) out.drive = "M.2";
  if (/\b3[.,]5\s*(?:"|''|inch|zoll|-)?/i.test(text) && !/DDR/i.test(text)) out.drive ??= "3.5";
  if (/\b2[.,]5\s*(?:"|''|inch|zoll|-)/i.test(text)) out.drive ??= "2.5";
  if (/\bnvme\b/i.test(text)) out.protocol = "nvme";
  else if (/\bsata\b/i.test(text)) out.protocol = "sata";
  for (const [r, form] of FORMS)
    if (r.test(text)) {
      out.form = form;
      break;
    }
  const eff = EFFICIENCY.find((e) => new RegExp(`\\b${e}\\b`, "i").test(text));
  if (eff) out.efficiency = eff;
  if (/\b(?:fully|semi)?[- ]?modular|vollmodular|teilmodular\b/i.test(text)) out.modular = !/\bnon[- ]modular\b/i.test(text);
  if (/\b(?:argb|rgb|led)\b/i.test(text)) out.lit = true;
  if (/\b(?:wi-?fi|wlan|wireless)\b/i.test(text)) out.wireless = true;
  return out;
}
