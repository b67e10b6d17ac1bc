import type { PartKind } from "../../catalogue";
import type { ExtraKind, PromiseKind } from "../language";
import type { ShelfIndex } from "../read-list";
import { type Due, dueIn } from "./dates";
import { figuresFor, figuresIn, moneyIn, numberIn, type Said } from "./figures";
import { cellsOf, isBulleted, rowOf, type Wanted, wantedOf, withoutBullet } from "./line";
import { type Alternative, matchOf } from "./match";
import {
  BUDGET,
  CLOSING,
  columnOf,
  DUE,
  extraIn,
  FAREWELL,
  GREETING,
  I_AM,
  kindIn,
  MACHINES,
  NUMBERS,
  OWN,
  PHONE,
  PROMISES,
  TOTAL,
  talkIn,
  USED,
  WITHOUT,
  wordsOf,
} from "./vocabulary";

/** One thing that was read, or one line of talk. */
export interface MailLine {
  /** Where it stands in the mail, from 1; several things of one line share it. */
  line: number;
  text: string;
  as: "part" | "extra" | "talk";
  words: string;
  kind?: PartKind;
  fits?: string;
  extra?: ExtraKind;
  count: number;
  said: Said;
  price?: number;
  origin?: "own" | "used";
  from?: string;
  serial?: string;
  /** The part type of the shelf that it means. */
  known?: { id: string; name: string };
  ask?: string;
  /** Only its figures say so, no name: any of the kind will do. */
  guessed?: true;
  alternatives: Alternative[];
}

export interface Promised {
  about: PromiseKind;
  words: string;
  /** dB(A), least rate, MT/s: where a number is said. */
  value?: number;
}

export interface Monitor {
  count: number;
  widthPx: number;
  heightPx: number;
  hz: number;
  /** Where it is said. */
  socket?: "HDMI" | "DisplayPort";
}

export interface Mail {
  lines: MailLine[];
  client: { name?: string; phone?: string; address?: string };
  due?: Due;
  budget?: number;
  /** Equal machines. */
  machines: number;
  promises: Promised[];
  monitors: Monitor[];
  /** What is not read, and why, in sentences. */
  faults: string[];
}

export const MOST_LINES = 3000;
export const MOST_CHARS = 200_000;
const MOST_LINE = 400;

const HEADER = /^(?:from|to|cc|sent|date|subject|reply-to|von|an|gesendet|datum|betreff)\s*:/i;
const QUOTE_HEAD =
  /^(?:on .{5,80} wrote|am .{5,80} schrieb.{0,60}|-{2,}\s*(?:original message|forwarded message|weitergeleitete nachricht|ursprüngliche nachricht)\s*-{2,})\s*:?$/i;
const ADDRESS = /[\w.+-]+@[\w-]+(?:\.[\w-]+)+/;
const NUMBER = /(?<![\d.,])\+?\d[\d\s()/.-]{5,22}\d(?!\d)/;
const LABEL = /^([\p{L}][\p{L}\s./&()-]{0,40}?)\s*(?::|=|\s[-–—]\s)\s*(\S.*)$/u;
/** Words that ask for something to be in the machine. */
const ASKS =
  /(?<!\p{L})(?:need|want|would like|i'd like|we'd like|order|buy|include|add|get me|put in|brauche|brauchen|möchte|möchten|hätte gern|hätten gern|bestelle|nehme|dazu)(?!\p{L})/iu;
const RESOLUTIONS: readonly (readonly [RegExp, number, number])[] = [
  [/\b(?:4k|uhd|2160p)\b/i, 3840, 2160],
  [/\b(?:5k)\b/i, 5120, 2880],
  [/\b(?:ultrawide|uwqhd|1440p ultrawide)\b/i, 3440, 1440],
  [/\b(?:wqhd|qhd|1440p|2k)\b/i, 2560, 1440],
  [/\b(?:full ?hd|fhd|1080p)\b/i, 1920, 1080],
];

const bare = (s: string) =>
  s
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, " ")
    .trim();

/** Half a sentence: a mail's long lines are several. */
const sentencesOf = (text: string): string[] => text.split(/(?<=[.!?;])\s+(?=[\p{Lu}\p{N}])/u).filter((s) => s.trim() !== "");

/**
 * A mail, a table or a list as a person reads it: what is a part, what goes into no machine, what is talk; who writes, by when, for how
 * much, and what has to be true of the machine. `today` is a day such as `2026-12-01`. Every line is in the answer, once or as several things.
 */
export function readMail(input: string, index: ShelfIndex, today: string): Mail {
  const mail: Mail = { lines: [], client: {}, machines: 1, promises: [], monitors: [], faults: [] };
  let text = input
    .replace(/\r\n?/g, "\n")
    .replace(/[\u00a0\u2007\u202f]/g, " ")
    .replace(/[\u200b\ufeff]/g, "");
  if (text.length > MOST_CHARS) {
    mail.faults.push(`The text has ${text.length} characters; the first ${MOST_CHARS} are read. Paste the list alone.`);
    text = text.slice(0, MOST_CHARS);
  }
  let rows = text.split("\n");
  if (rows.length > MOST_LINES) {
    mail.faults.push(`The text has ${rows.length} lines; the first ${MOST_LINES} are read. Paste the list alone.`);
    rows = rows.slice(0, MOST_LINES);
  }
  const seen = new Set<string>();
  let columns: (string | undefined)[] | undefined;
  let signature = 0;
  let heading: string | undefined;
  let noted: PartKind | undefined;
  for (const [i, raw] of rows.entries()) {
    const line = i + 1;
    const quoted = /^\s*>/.test(raw);
    const t = raw.replace(/^(?:\s*>)+/, "").trim();
    if (t === "") {
      if (signature > 0) signature++;
      columns = undefined;
      continue;
    }
    const cut = t.length > MOST_LINE ? `${t.slice(0, MOST_LINE)}` : t;
    if (t.length > MOST_LINE) mail.faults.push(`Line ${line} has ${t.length} characters; the first ${MOST_LINE} are read.`);
    const talk = () => mail.lines.push({ line, text: t, as: "talk", words: t, count: 1, said: {}, alternatives: [] });
    // A mail quoted again and again says nothing new.
    const key = bare(cut);
    if (quoted && key !== "" && seen.has(key)) {
      talk();
      continue;
    }
    seen.add(key);
    if (QUOTE_HEAD.test(cut) || HEADER.test(cut) || key === "") {
      about(mail, cut, today, true);
      talk();
      continue;
    }
    const things = signature > 1 && signature < 8 && !isBulleted(cut) ? [] : thingsIn(cut, columns, heading);
    if (things === "columns") {
      columns = columnsOf(cut);
      talk();
      continue;
    }
    const kept = things.filter((w) => keeps(w, index, isBulleted(cut) || columns !== undefined));
    const closing = CLOSING.exec(cut)?.[1];
    if (closing && kept.length === 0 && isName(closing)) {
      if (!mail.client.name) mail.client.name = nameOf(closing);
      signature = 2;
    } else if (FAREWELL.test(cut)) signature = 1;
    else if (signature > 0 && kept.length === 0) {
      if (signature <= 3 && !mail.client.name && isName(cut)) mail.client.name = nameOf(cut);
      signature++;
    } else if (kept.length > 0) signature = 0;
    about(mail, cut, today, kept.length === 0);
    heading = /^[^:]{3,60}:$/.test(cut) && talkIn(cut) === 0 ? cut.slice(0, -1) : kept.length > 0 || isBulleted(cut) ? heading : undefined;
    if (kept.length === 0) {
      talk();
      continue;
    }
    for (const w of kept) {
      if (w.extra === "monitor") monitorIn(mail, cut, w.count);
      if (w.extra) {
        // What names it may stand before the colon: then all of the line is its words.
        const own = extraIn(w.words) ? w : { ...w, words: withoutBullet(cut).slice(0, 300) };
        mail.lines.push({ line, text: t, as: "extra", ...plainWanted(own), alternatives: [] });
        continue;
      }
      const m = matchOf(w, index);
      noted = w.kind ?? m.known?.kind ?? noted;
      mail.lines.push({
        line,
        text: t,
        as: "part",
        ...plainWanted(w),
        ...((m.known?.kind ?? w.kind) ? { kind: m.known?.kind ?? (w.kind as PartKind) } : {}),
        said: figuresFor(w.said, m.known?.kind ?? w.kind),
        ...(m.known ? { known: { id: m.known.id, name: m.known.name } } : {}),
        ...(m.ask ? { ask: m.ask } : {}),
        ...(m.guessed ? { guessed: true as const } : {}),
        alternatives: m.alternatives,
      });
    }
  }
  return mail;
}

function plainWanted({ words, kind, fits, extra, count, said, price, origin, from, serial }: Wanted) {
  return {
    words,
    ...(kind ? { kind } : {}),
    ...(fits ? { fits } : {}),
    ...(extra ? { extra } : {}),
    count,
    said,
    ...(price === undefined ? {} : { price }),
    ...(origin ? { origin } : {}),
    ...(from ? { from } : {}),
    ...(serial ? { serial } : {}),
  };
}

function columnsOf(text: string): (string | undefined)[] | undefined {
  const cells = cellsOf(text) ?? (text.includes(",") ? text.split(",").map((c) => c.trim()) : undefined);
  const named = cells?.map(columnOf);
  return named && named.filter(Boolean).length >= 2 ? named : undefined;
}

type Thing = Wanted & { counted: boolean; labelled: boolean };

/** What a line asks for; nothing where it is talk. "columns": it heads a table. */
function thingsIn(text: string, columns: readonly (string | undefined)[] | undefined, heading: string | undefined): Thing[] | "columns" {
  if (columnsOf(text)) return "columns";
  const cells = cellsOf(text) ?? (columns ? text.split(",").map((c) => c.trim()) : undefined);
  if (cells && (columns ? cells.length >= 2 : talkIn(text) < 3)) {
    const row = rowOf(cells, columns && cells.length <= columns.length + 1 ? columns : undefined);
    if (row.text === "" || TOTAL.test(row.label || row.text) || (BUDGET.test(row.label || row.text) && !kindIn(row.text).kind)) return [];
    const w = wantedOf(row.text, row.label);
    const n = row.count !== undefined ? row.count * (w.counted ? w.count : 1) : w.count;
    return [
      {
        ...w,
        count: n,
        counted: w.counted || row.count !== undefined,
        labelled: true,
        ...(row.price === undefined ? {} : { price: row.price }),
        ...(row.serial ? { serial: row.serial } : {}),
      },
    ];
  }
  const t = withoutBullet(text);
  if (TOTAL.test(t)) return [];
  const bulleted = isBulleted(text);
  const [, label, rest] = LABEL.exec(t) ?? [];
  const named = label ? kindIn(label) : undefined;
  if (label && rest && (named?.kind || extraIn(label)) && talkIn(label) === 0) return severalIn(rest, label).map((w) => ({ ...w, labelled: true }));
  if (label && rest && talkIn(label) === 0 && (BUDGET.test(label) || PHONE.test(label) || DUE.test(label) || I_AM.test(`${label}:`))) return [];
  // What stands in brackets is a remark: it makes no talk of a thing that is named.
  const named0 = t.replace(/\([^()]*\)/g, " ");
  const spoken = kindIn(named0).kind && !OWN.test(t) ? talkIn(named0) : talkIn(t);
  const words = wordsOf(t).length;
  const asked = ASKS.test(t);
  const mine = OWN.test(t) || USED.test(t);
  if (GREETING.test(t) && !bulleted && spoken > 0 && !mine && !asked) return [];
  // A sentence: only what is asked for or owned in it is a thing.
  if (spoken >= 2 || (spoken >= 1 && !bulleted && (words > 6 || /[.!?]$/.test(t))) || (!bulleted && words > 16)) {
    if (!asked && !mine) return [];
    return sentencesOf(t).flatMap((s) => (ASKS.test(s) || OWN.test(s) || USED.test(s) ? spokenIn(s) : []));
  }
  const byHead = heading ? kindIn(heading) : undefined;
  return severalIn(t, byHead?.kind && talkIn(heading ?? "") === 0 ? (heading ?? "") : "").map((w) => ({ ...w, labelled: bulleted }));
}

/** "3 of this + 1 of that", "case, board and supply": several things of one line. */
function severalIn(text: string, label: string): (Wanted & { counted: boolean })[] {
  const plus = text.split(/\s+\+\s+|\s*\s&\s\s*(?=\d)/);
  if (plus.length > 1 && plus.slice(1).every((p) => wantedOf(p, label).counted || kindIn(p).kind !== undefined))
    return plus.map((p) => wantedOf(p, label));
  const parts = text.split(/\s*[,;]\s+|\s+(?:and|und|plus)\s+/);
  const kinds = parts.map((p) => kindIn(p).kind ?? extraIn(p));
  if (parts.length > 1 && label === "" && kinds.every(Boolean) && new Set(kinds).size === parts.length) return parts.map((p) => wantedOf(p));
  return [wantedOf(text, label)];
}

/** The things that a sentence asks for, or says are owned. */
function spokenIn(sentence: string): Thing[] {
  const own = OWN.test(sentence);
  const used = USED.exec(sentence);
  const asks = ASKS.exec(sentence);
  const from = asks && !own ? sentence.slice(asks.index + asks[0].length) : sentence;
  return from.split(/\s*[,;]\s+|\s+(?:and|und|plus|but|aber|sowie)\s+/).flatMap((piece): Thing[] => {
    const kind = kindIn(piece);
    const extra = extraIn(piece);
    if (!kind.kind && !extra) return [];
    const w = wantedOf(stripped(piece));
    const first = stripped(piece);
    // "for the graphics card", "so that the case …": it is spoken of, not asked for.
    if (/^(?:for|so|that|which|because|if|when|für|damit|dass|weil|wenn|the|der|die|das|my|your|dein|ihr)\b/i.test(piece.trim()) && !own) return [];
    if (WITHOUT.some((x) => piece.toLowerCase().includes(x)) && !own) return [];
    const specific = Object.keys(figuresIn(piece)).length > 0 || /\d/.test(first) || w.counted || /^(?:an?|one|ein\w*)\s/i.test(piece.trim()) || own;
    if (!specific) return [];
    return [{ ...w, labelled: own || used !== null, ...(own ? { origin: "own" as const } : {}) }];
  });
}

/** A piece of a sentence without what only people say. */
function stripped(piece: string): string {
  const k = kindIn(piece);
  const start = piece.search(/(?<!\p{L})(?:\d|an?\s|the\s|my\s|one\s|ein\w*\s|zwei|two|three|drei|four|vier)/iu);
  const from = start >= 0 && (k.at < 0 || start <= k.at) ? piece.slice(start) : piece;
  return from
    .replace(/^(?:an?|the|my|our|one|ein\w*|mein\w*|der|die|das|den)\s+/i, "")
    .replace(/\s+(?:from|out of|aus|vom|von)\s+(?:my|the|our|dem|meinem|alten).*$/iu, "")
    .replace(/[.!?]+$/, "")
    .trim();
}

/** Is it a thing at all: a kind, an extra, or words that the shelf knows? */
function keeps(w: Thing, index: ShelfIndex, listed: boolean): boolean {
  if (w.words === "" || !/[\p{L}\p{N}]/u.test(w.words)) return false;
  if (w.kind || w.extra) return true;
  const m = matchOf(w, index);
  if (m.known) return true;
  if (talkIn(w.words) > 0) return false;
  // Of no kind that anybody names: only what stands in a list, with an amount or a price, or looks like a model.
  const model = /(?=\S*\d)(?=\S*\p{L})[\p{L}\d-]{3,}/u.test(w.words);
  return (listed && (w.counted || w.price !== undefined || model)) || (w.labelled && (w.counted || model)) || (w.counted && model);
}

const isName = (t: string) => /^[\p{Lu}][\p{L}'’.-]+(?:\s+[\p{Lu}][\p{L}'’.-]*){0,3}[,.]?$/u.test(t.trim()) && !PHONE.test(t);
const nameOf = (t: string) => t.trim().replace(/[,.]+$/, "");

/** What a line says of who writes, by when, for how much, and of the machine as a whole. */
function about(mail: Mail, t: string, today: string, talk: boolean): void {
  const address = ADDRESS.exec(t)?.[0];
  const head = /^(?:from|von)\s*:\s*(.+)$/i.exec(t)?.[1];
  if (head && !mail.client.name) {
    const name = head.replace(/<.*$/, "").replace(ADDRESS, "").replace(/["']/g, "").trim();
    if (name) mail.client.name = name;
  }
  if (address && (head || !mail.client.address)) mail.client.address ??= address;
  if (!talk) return;
  const said = I_AM.exec(t)?.[1];
  if (said && !mail.client.name && !head) {
    const name = /^[\p{Lu}][\p{L}'’.-]+(?:\s+[\p{Lu}][\p{L}'’-]+){0,3}/u.exec(said.trim())?.[0];
    if (name) mail.client.name = name;
  }
  const number = NUMBER.exec(t.replace(ADDRESS, " "))?.[0];
  const digits = number?.replace(/\D/g, "").length ?? 0;
  if (number && digits >= 6 && (PHONE.test(t) || /^\s*\+?\d[\d\s()/.-]+$/.test(t.trim())) && !mail.client.phone && !/\d{4}-\d{2}-\d{2}/.test(number))
    mail.client.phone = number.trim();
  // "On 28 November … wrote" is when it was written.
  if (!mail.due && !HEADER.test(t) && !QUOTE_HEAD.test(t))
    for (const s of sentencesOf(t)) {
      const due = dueIn(s, today);
      if (due && !mail.due) mail.due = due;
    }
  const b = BUDGET.exec(t);
  if (b && mail.budget === undefined) {
    const after = t.slice(b.index);
    const sums = moneyIn(after).sums;
    const plain = /(?<![\p{L}\d])(\d{1,3}(?:[.,' ]\d{3})+|\d{3,6}|\d+(?:[.,]\d)?\s*k)(?![\p{L}\d]|\s*(?:mm|cm|w\b|watt|gb|tb|mhz|mt))/iu.exec(
      after,
    )?.[1];
    const sum = sums[0] ?? (plain ? numberIn(plain) : undefined);
    if (sum !== undefined && sum >= 100) mail.budget = sum;
  }
  const machines = MACHINES.exec(t);
  if (machines) {
    const n = /(\d{1,2}|\p{L}+)\s*(?:x\s*|of\s+)?$/u.exec(t.slice(0, machines.index).trim())?.[1];
    const many = n === undefined ? undefined : (NUMBERS.get(n.toLowerCase()) ?? Number(n));
    if (many !== undefined && many > 1 && many <= 50) mail.machines = many;
  }
  if (extraIn(t) === "monitor") monitorIn(mail, t, 1);
  for (const s of sentencesOf(t))
    for (const p of PROMISES)
      if (p.is.test(s) && !mail.promises.some((x) => x.about === p.about && bare(x.words) === bare(s))) {
        const db = /(\d{1,2}(?:[.,]\d)?)\s*dB/i.exec(s)?.[1];
        const rate = /(\d{2,3})\s*(?:fps|hz|bilder|frames)/i.exec(s)?.[1];
        const value = p.about === "quiet" ? db : p.about === "program" ? rate : undefined;
        mail.promises.push({ about: p.about, words: s.trim(), ...(value ? { value: Number(value.replace(",", ".")) } : {}) });
      }
}

/** A monitor, where its resolution is said. */
function monitorIn(mail: Mail, t: string, count: number): void {
  const px = /\b(\d{4})\s*[x×]\s*(\d{3,4})\b/.exec(t);
  const named = RESOLUTIONS.find(([r]) => r.test(t));
  const [widthPx, heightPx] = px ? [Number(px[1]), Number(px[2])] : named ? [named[1], named[2]] : [];
  if (!widthPx || !heightPx || mail.monitors.length >= 8) return;
  const hz = Number(/\b(\d{2,3})\s*Hz\b/i.exec(t)?.[1] ?? 60);
  const said = /(?<![\d.,])(\d|two|zwei)\s*(?:x|×|stück|stk|pcs)(?!\p{L})/iu.exec(t)?.[1];
  const pair = /(?:two|zwei|2)\s+(?:\S+\s+){0,3}(?:monitors?|screens?|displays?|bildschirme|monitore)/i.test(t);
  const many = count > 1 ? count : said ? Math.min(8, Math.max(1, Number(said) || 2)) : pair ? 2 : 1;
  if (mail.monitors.some((m) => m.widthPx === widthPx && m.heightPx === heightPx && m.hz === hz)) return;
  // Of several that are named the first is this one's.
  const named0 = /\b(?:hdmi|displayport|dp)\b/i.exec(t)?.[0].toLowerCase();
  const socket = named0 === undefined ? undefined : named0 === "hdmi" ? ("HDMI" as const) : ("DisplayPort" as const);
  mail.monitors.push({ count: many, widthPx, heightPx, hz, ...(socket ? { socket } : {}) });
}

/** What was understood, in one line. */
export function understood(mail: Mail): { parts: number; known: number; total?: number } {
  const parts = mail.lines.filter((l) => l.as === "part");
  const sums = mail.lines.flatMap((l) => (l.as !== "talk" && l.price !== undefined && l.origin !== "own" ? [l.price] : []));
  return {
    parts: parts.reduce((n, l) => n + l.count, 0),
    known: parts.reduce((n, l) => n + (l.known ? l.count : 0), 0),
    ...(sums.length > 0 ? { total: Math.round(sums.reduce((a, b) => a + b, 0) * 100) / 100 } : {}),
  };
}
