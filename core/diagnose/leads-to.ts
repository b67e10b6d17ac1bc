import type { Graph } from "../assembly";
import { list } from "../words";
import { type Backward, backwardOf, goodOf, isOff, type Suspected, suspicion } from "./backward";
import { nameOf, type Priors } from "./causes";
import { bestFirst, type Choice } from "./choose";
import { deedsOf, type Shop, type Told } from "./deeds";
import { type Evidence, entropyBits, mends, posterior, type Result, type Suspicion, shareOf } from "./inference";
import { resultsOf } from "./results";

/** What was seen of a line, or done about the machine, in order. */
export type Happened = { line: string; value: string } | { deed: string; result: string };

export interface Asked extends Shop {
  happened: readonly Happened[];
  priors?: Priors;
  /** What it takes to open the machine, where it is closed; paid once. */
  opening?: { minutes: number; words: string };
  /** How far ahead outcomes are told: 1 for the next deed alone. */
  depth?: number;
}

export interface Outcome {
  seen: string;
  share: number;
  /** Names of what it would clear. */
  clears: string[];
  /** The deed that follows, by id; nothing where it is mended. */
  follows: string | null;
  followsWords: string;
}

/** A deed, what it takes, and what it would come to. */
export interface DeedShown {
  id: string;
  kind: Told["kind"];
  target: string;
  words: string;
  /** What may come of it, in the words in which it is recorded; of a look none: it is a value of its line. */
  results: readonly string[];
  caution?: string;
  /** What comes out for it. */
  access?: string;
  /** Nothing to swap it for lies here: the minutes are mostly waiting. */
  waits?: true;
  /** With opening the machine, where it is still closed. */
  minutes: number;
  /** Expected until a verified repair, where this comes first. */
  expectedMinutes: number;
}

export interface NextDeed extends DeedShown {
  bits: number;
  why: string;
  outcomes: Outcome[];
}

export interface SuspectShown {
  /** Of the likeliest cause. */
  id: string;
  element: string;
  /** What it is; where more than one is alike, the others after it. */
  words: string;
  /** Others that no line and no deed tells from it. */
  alike: string[];
  share: number;
  why: string;
}

export interface Policy {
  deed: string;
  outcomes: { seen: string; share: number; follows: Policy | null }[];
}

export interface Answer {
  suspects: SuspectShown[];
  cleared: { id: string; name: string; by: string }[];
  /** Share that nothing is wrong any more. */
  nothing: number;
  expectedMinutes: number;
  next: NextDeed | null;
  /** What comes close behind, and what it would cost to begin with it. */
  others: DeedShown[];
  policy: Policy | null;
  entropyBits: number;
  /** What was seen or done and cannot be brought together, or is nothing of this machine: a sentence each. */
  notes: string[];
}

/** Under this nobody looks at it any more. */
const CLEARED = 0.002;
const MOST_SUSPECTS = 12;
const MOST_CLEARED = 40;
const MOST_OTHERS = 4;
/** So many lines that the best of all hypotheses does not explain are said. */
const UNEXPLAINED = 2;
/** Over this it is taken as mended. */
const MENDED = 0.9;
const DEPTH = 3;

/** What is to blame, as far as it is known, and what to do first: the least expected minutes until a verified repair. */
export function leadsTo(graph: Graph, asked: Asked, b: Backward = backwardOf(graph, asked.priors)): Answer {
  const notes: string[] = [];
  const read = readIn(b, asked, notes);
  const { s, evidence, seen, tried, off } = read;
  const { now } = posterior(s, evidence, (o) => isOff(b, o));
  const deeds = deedsOf(b, seen, asked).filter((d) => !tried.has(d.id));
  const mended = off.length === 0 && (now[0] ?? 0) > MENDED;
  const lines = off.map((o) => o.line);
  if (b.damage.length > 0) notes.unshift(`Do not start it as it is: ${b.damage[0]}. Mend that first; every action here ends with a start.`);
  const choices = b.damage.length > 0 || mended || read.ever.length === 0 ? [] : bestFirst(s, now, deeds, lines);
  const [first] = choices;
  const closed = asked.opening && !read.opened ? asked.opening : undefined;
  const cause = shareOf(s.hypotheses, now, b.suspected.length);
  noteOdds(b, s, now, evidence, notes);
  const depth = asked.depth ?? 1;
  return {
    suspects: read.ever.length === 0 ? [] : suspectsOf(b, cause, off),
    cleared: clearedBy(b, cause, evidence, off, read.ever),
    nothing: now[0] ?? 0,
    expectedMinutes: first ? first.minutes + (closed?.minutes ?? 0) : 0,
    next: first ? nextOf(b, s, now, first, choices[1], deeds, lines, closed) : null,
    others: choices.slice(1, 1 + MOST_OTHERS).map((c) => deedShown(c, closed)),
    policy: first && depth > 1 ? policyOf(s, first, deeds, lines, Math.min(depth, DEPTH)) : null,
    entropyBits: entropyBits(now),
    notes,
  };
}

/** Hands are not in the machine for it. */
const OUTSIDE: readonly Told["kind"][] = ["look", "measure", "set right", "update"];
const inside = (d: Pick<Told, "kind" | "target">): boolean => !OUTSIDE.includes(d.kind) && d.target !== "monitor";

/** A deed as it is shown. A machine that is closed is opened first: once, whatever comes after. */
function deedShown({ deed: d, minutes }: Choice<Told>, closed: Asked["opening"]): DeedShown {
  const opens = closed !== undefined && inside(d);
  const access = [opens ? closed.words : "", d.access].filter(Boolean).join(" ");
  return {
    id: d.id,
    kind: d.kind,
    target: d.target,
    words: d.words,
    results: resultsOf(d.kind),
    ...(d.caution ? { caution: d.caution } : {}),
    ...(access ? { access } : {}),
    ...(d.waits ? { waits: true } : {}),
    minutes: d.minutes + (opens ? closed.minutes : 0),
    expectedMinutes: minutes + (closed?.minutes ?? 0),
  };
}

interface Read {
  s: Suspicion;
  evidence: Evidence[];
  /** Latest value of each line of the machine as it is now. */
  seen: Map<string, string>;
  tried: Set<string>;
  /** Hands have been in it. */
  opened: boolean;
  /** What is wrong now. */
  off: { line: string; value: string }[];
  /** What was wrong at any time. */
  ever: { line: string; value: string }[];
}

/** What happened, as evidence; what is nothing of this machine is said and left out. */
function readIn(b: Backward, asked: Asked, notes: string[]): Read {
  const looks = asked.happened.filter((h): h is { line: string; value: string } => {
    if ("deed" in h) return false;
    if (b.lines.has(h.line)) return true;
    notes.push(`${h.line}: this machine's sheet has no such line. It is left out.`);
    return false;
  });
  const s = suspicion(b, looks);
  const byId = new Map(deedsOf(b, new Map(), asked).map((d) => [d.id, d]));
  const tried = new Set<string>();
  let evidence: Evidence[] = [];
  let seen = new Map<string, string>();
  for (const h of asked.happened) {
    if ("line" in h) {
      if (!b.lines.has(h.line)) continue;
      const before = seen.get(h.line);
      if (before !== undefined && before !== h.value) {
        notes.push(`${b.lines.get(h.line)?.what ?? h.line} was seen in two ways; the later counts: ${h.value}.`);
        const last = evidence.map((e) => "line" in e && e.line === h.line).lastIndexOf(true);
        evidence = evidence.filter((_, i) => i !== last);
      }
      if (before !== h.value) evidence.push(h);
      seen.set(h.line, h.value);
      continue;
    }
    // A test that asks for what is wrong exists only while it is.
    const deed = byId.get(h.deed) ?? deedsOf(b, seen, asked).find((d) => d.id === h.deed);
    if (!deed) {
      notes.push(`${h.deed}: nothing of that name can be done at this machine. It is left out.`);
      continue;
    }
    tried.add(deed.id);
    evidence.push({ deed, result: h.result as Result });
    // What was wrong is right now: those lines are as wanted until they are seen again.
    if (mends(h.result, deed.cures.size > 0)) seen = new Map([...seen].filter(([line, value]) => !isOff(b, { line, value })));
    // What was seen before a repair that changed something was of another machine.
    else if (h.result === "changed") seen = new Map();
  }
  const off = [...seen].map(([line, value]) => ({ line, value })).filter((o) => isOff(b, o));
  const ever = looks.filter((o) => isOff(b, o));
  const opened = evidence.some((e) => "deed" in e && inside(e.deed as Told));
  return { s, evidence, seen, tried, opened, off, ever };
}

/** Where nothing explains all that was seen, what to look at again. */
function noteOdds(b: Backward, s: Suspicion, now: Float64Array, evidence: readonly Evidence[], notes: string[]): void {
  let best = 0;
  for (let i = 0; i < now.length; i++) if ((now[i] ?? 0) > (now[best] ?? 0)) best = i;
  const h = s.hypotheses[best];
  const last = evidence.findLastIndex((e) => "deed" in e && e.result !== "no change" && e.deed.cures.size > 0);
  const against = evidence.slice(last + 1).flatMap((e) => {
    const shown = "line" in e ? h?.shows(e.line) : undefined;
    return "line" in e && shown !== undefined && !b.same(e.line, shown, e.value) ? [b.lines.get(e.line)?.what ?? e.line] : [];
  });
  if (against.length >= UNEXPLAINED) notes.push(`Nothing that is known explains all of it. Look again at: ${list(against)}.`);
}

const MOST_ALIKE = 3;

function suspectsOf(b: Backward, cause: Float64Array, off: readonly { line: string; value: string }[]): SuspectShown[] {
  return b.suspected
    .map((x, i) => ({ x, share: cause[i] ?? 0 }))
    .filter(({ share }) => share >= CLEARED)
    .sort((p, q) => q.share - p.share || ((p.x.causes[0]?.id ?? "") < (q.x.causes[0]?.id ?? "") ? -1 : 1))
    .slice(0, MOST_SUSPECTS)
    .flatMap(({ x, share }) => {
      const c = x.causes[0];
      if (!c) return [];
      // One that is loose and one that is half in is pressed home alike: not worth a word.
      const alike = x.causes.flatMap((a) => (a.element === c.element ? [] : [a.words])).slice(0, MOST_ALIKE);
      return [{ id: c.id, element: c.element, words: c.words, alike, share, why: whyOf(b, x, off) }];
    });
}

/** What a cause explains of what is wrong. */
function whyOf(b: Backward, x: Suspected, off: readonly { line: string; value: string }[]): string {
  const explains = off.filter((o) => x.effect.has(o.line) && b.same(o.line, x.effect.get(o.line) ?? "", o.value));
  const what = (of: readonly { line: string }[]) => list(of.map((o) => b.lines.get(o.line)?.what ?? o.line));
  if (explains.length === 0) return "It explains nothing of it by itself.";
  if (explains.length === off.length)
    return off.length === 1 ? `It alone explains: ${what(off)}.` : `It alone explains all ${off.length}: ${what(off)}.`;
  return `It explains ${explains.length} of ${off.length}: ${what(explains)}.`;
}

/** Elements that would explain something of what was wrong and hardly can any more, each with what says so. */
function clearedBy(
  b: Backward,
  cause: Float64Array,
  evidence: readonly Evidence[],
  off: readonly { line: string; value: string }[],
  ever: readonly { line: string; value: string }[],
): Answer["cleared"] {
  const wrong = off.length > 0 ? off : ever;
  const elements = new Map<string, number[]>();
  for (const [i, x] of b.suspected.entries())
    if (wrong.some((o) => x.effect.has(o.line))) for (const c of x.causes) elements.set(c.element, [...(elements.get(c.element) ?? []), i]);
  const out: Answer["cleared"] = [];
  for (const [element, at] of elements) {
    if (at.some((i) => (cause[i] ?? 0) >= CLEARED)) continue;
    const by = evidence.find((e) => at.every((i) => speaksAgainst(b, i, e)));
    if (!by) continue;
    const said = "line" in by ? `${b.lines.get(by.line)?.what ?? by.line}: ${by.value}` : `${wordOf(b, by.deed as Told)}: ${by.result}`;
    out.push({ id: element, name: nameOf(b.graph, element), by: said });
  }
  return out.slice(0, MOST_CLEARED);
}

/** Is what was seen or came of a deed otherwise than it would be if this alone were to blame? What is wrong because of something else does not count. */
function speaksAgainst(b: Backward, at: number, e: Evidence): boolean {
  const x = b.suspected[at];
  if (!x) return false;
  if ("line" in e) {
    const shown = x.effect.get(e.line);
    return shown !== undefined && !isOff(b, e) && !b.same(e.line, shown, e.value);
  }
  if (e.result === "impossible") return false;
  if (!e.deed.shows) return e.result === "no change" && e.deed.cures.has(at);
  const alone = { causes: [at], prior: x.prior, shows: (l: string) => x.effect.get(l) ?? goodOf(b, l) };
  return e.deed.shows(alone) !== e.result;
}

/** A deed in a few words. */
export const wordOf = (b: Backward, d: Pick<Told, "kind" | "target">): string =>
  b.lines.has(d.target) ? (b.lines.get(d.target)?.what ?? d.target) : `${nameOf(b.graph, d.target)}, ${d.kind}`;

const minutesWord = (m: number) => (m < 1 ? "half a minute" : `${Math.round(m)} ${Math.round(m) === 1 ? "minute" : "minutes"}`);

/** Why this comes first: the minutes beside the next best, and how much of the doubt it takes away. */
function whyThis(c: Choice<Told>, second: Choice<Told> | undefined, doubt: number, openingMin: number): string {
  const of = (x: Choice<Told>) => minutesWord(x.minutes + openingMin);
  const all = `About ${of(c)} to a repair that holds if this comes first`;
  const beside = !second
    ? "nothing else is left to do"
    : of(second) === of(c)
      ? "the next best comes to about the same"
      : `the next best would make it ${of(second)}`;
  const away = doubt > 0.05 ? Math.round((100 * c.bits) / doubt) : 0;
  return `${all}; ${beside}.${away >= 10 ? ` Whatever comes of it, it takes away about ${away} % of the doubt.` : ""}`;
}

/** The deed in words, with what each outcome would clear and what follows. */
function nextOf(
  b: Backward,
  s: Suspicion,
  now: Float64Array,
  c: Choice<Told>,
  second: Choice<Told> | undefined,
  deeds: readonly Told[],
  lines: readonly string[],
  closed: Asked["opening"],
): NextDeed {
  const d = c.deed;
  const n = b.suspected.length;
  const before = shareOf(s.hypotheses, now, n);
  const rest = deeds.filter((x) => x !== d);
  const merged = new Map<string, (typeof c.outcomes)[number]>();
  for (const o of c.outcomes) if (!merged.has(o.seen)) merged.set(o.seen, o);
  const shareSeen = (seen: string) => c.outcomes.reduce((m, o) => m + (o.seen === seen ? o.share : 0), 0);
  return {
    ...deedShown(c, closed),
    bits: c.bits,
    why: whyThis(c, second, entropyBits(now), closed?.minutes ?? 0),
    outcomes: [...merged.values()]
      .filter((o) => shareSeen(o.seen) > 0.005)
      .map((o): Outcome => {
        const after = shareOf(s.hypotheses, o.after, n);
        const clears = b.suspected.flatMap((x, i) =>
          (before[i] ?? 0) >= CLEARED && (after[i] ?? 0) < CLEARED && !(o.seen === "that was it" && d.cures.has(i)) && x.causes[0]
            ? [nameOf(b.graph, x.causes[0].element)]
            : [],
        );
        const ends = mends(o.seen, d.cures.size > 0);
        const next = ends ? undefined : bestFirst(s, o.after, rest, lines)[0]?.deed;
        return {
          seen: o.seen,
          share: shareSeen(o.seen),
          clears: [...new Set(clears)],
          follows: next?.id ?? null,
          followsWords: ends ? "Mended: look at those lines again." : (next?.words ?? "Nothing is left to do that would tell more."),
        };
      }),
  };
}

/** The next deeds, to a depth. */
function policyOf(s: Suspicion, c: Choice<Told>, deeds: readonly Told[], lines: readonly string[], depth: number): Policy {
  const rest = deeds.filter((d) => d !== c.deed);
  return {
    deed: c.deed.id,
    outcomes: c.outcomes
      .filter((o) => o.share > 0.005)
      .map((o) => {
        const ends = mends(o.seen, c.deed.cures.size > 0);
        const next = depth > 1 && !ends ? bestFirst(s, o.after, rest, lines)[0] : undefined;
        return { seen: o.seen, share: o.share, follows: next ? policyOf(s, next, rest, lines, depth - 1) : null };
      }),
  };
}

/** What is worth starting in so many minutes: the best of what ends within them. */
export function within(answer: Answer, minutes: number): { id: string; words: string; minutes: number } | undefined {
  const all = [...(answer.next ? [answer.next] : []), ...answer.others];
  const best = all.find((d) => d.minutes <= minutes);
  return best && { id: best.id, words: best.words, minutes: best.minutes };
}
