import { arranged } from "./arrange";
import type { Posture, Precedence, Problem, Work } from "./model";
import { orderOfProblem } from "./order";
import { OUT_SHARE, PASTE_MIN } from "./practice";

/** A step that comes out again. */
export interface Out {
  step: string;
  title: string;
  /** Leads that are pulled, and screws that are turned out. */
  leads: number;
  screws: number;
  minutes: number;
  /** Only these leads of its bundle; left out: all of it. */
  only?: readonly string[];
}

export interface Undo {
  step: string;
  title: string;
  /** What comes out, in order. */
  out: Out[];
  /** What stays done. */
  stays: { step: string; title: string }[];
  /** What must be made anew. */
  anew: string[];
  leads: number;
  screws: number;
  minutes: { out: number; back: number; whole: number };
  turns: number;
  /** What is done afterwards, in order, the step itself among it. */
  back: { step: string; title: string; posture?: Posture }[];
  words: string;
}

/** Looked at or tried once: nothing comes out for it, but it is done again. */
const LOOKED: readonly Work["kind"][] = ["gate", "check", "test"];
/** Leads that lie where they are led while their plug is pulled. */
const BUNDLES: readonly Work["kind"][] = ["route", "dress"];

/**
 * What must come out before a step can be done that was forgotten, or done again when it was wrong: whatever hides its place or stands
 * on it, and whatever hides or stands on that. The same precedences as forward; schools count for nothing. Undefined: no such step.
 */
export function undoOf(problem: Problem, id: string): Undo | undefined {
  const works = new Map(problem.works.map((w) => [w.id, w]));
  const target = works.get(id);
  return target && told(problem, works, target, comingOut(problem, works, target));
}

/** What getting at a step's place costs. */
export interface Price {
  /** Of hands, out and back, with the step itself. */
  minutes: number;
  /** The same without what is looked at or tried again: for who starts it anyway. */
  handsMinutes: number;
  /** Steps that come out, leads that are pulled, screws that are turned out. */
  steps: number;
  leads: number;
  screws: number;
  words: string;
}

/** What doing a step again costs, for many steps of one machine: as `undoOf`, without the order in which it comes back. */
export function pricesOf(problem: Problem): (id: string) => Price | undefined {
  const works = new Map(problem.works.map((w) => [w.id, w]));
  const known = new Map<string, Price | undefined>();
  return (id) => {
    if (!known.has(id)) {
      const target = works.get(id);
      known.set(id, target && priceOf(works, target, comingOut(problem, works, target)));
    }
    return known.get(id);
  };
}

function priceOf(works: ReadonlyMap<string, Work>, target: Work, hit: ReadonlyMap<string, Moved>): Price {
  const all = [...hit].flatMap(([x, only]) => {
    const w = works.get(x);
    const share = w && only && w.leads.length > 0 ? only.size / w.leads.length : 1;
    return w ? [{ w, share, looked: LOOKED.includes(w.kind) }] : [];
  });
  const out = all.filter((x) => !x.looked);
  const outMin = out.reduce((n, x) => n + half(x.w.minutes.handsOn * OUT_SHARE * x.share), 0);
  const back = [...all, ...(hit.has(target.id) ? [] : [{ w: target, share: 1 }])];
  const anew = new Set(all.flatMap((x) => x.w.anew ?? []));
  const paste = [...anew].filter((a) => a.startsWith("paste")).length * PASTE_MIN;
  const backOf = (of: typeof back) => of.reduce((n, x) => n + x.w.minutes.handsOn * (BUNDLES.includes(x.w.kind) ? x.share : 1), 0) + paste;
  const minutes = half(outMin + backOf(back));
  const handsMinutes = half(outMin + backOf(back.filter((x) => !LOOKED.includes(x.w.kind))));
  const leads = out.filter((x) => x.w.kind === "plug").length;
  const screws = out.reduce((n, x) => n + x.w.screws, 0);
  return {
    minutes,
    handsMinutes,
    steps: out.length,
    leads,
    screws,
    words: `${outWords(out.length, leads, screws)}${paste > 0 ? ", and there is new paste" : ""}.`,
  };
}

/** Steps that come out for one, with the leads of each that move. */
function comingOut(problem: Problem, works: ReadonlyMap<string, Work>, target: Work): Map<string, Moved> {
  const id = target.id;
  const next = new Map<string, Precedence[]>();
  for (const p of problem.precedences) {
    if (p.kind === "school") continue;
    const has = next.get(p.before);
    if (has) has.push(p);
    else next.set(p.before, [p]);
  }
  const roots = rootsOf(problem.works);
  const stays = (from: Work, lead: string): boolean => staysBehind(roots, from, lead);
  const hit = new Map<string, Moved>(target.done ? [[id, null]] : []);
  const open: { work: Work; moved: Moved }[] = [{ work: target, moved: target.kind === "plug" ? new Set(target.leads) : null }];
  for (let at = open.pop(); at; at = open.pop())
    for (const p of next.get(at.work.id) ?? []) {
      const work = works.get(p.after);
      const moved = work?.done ? movedOf(at.work, at.moved, work, stays) : undefined;
      if (!work || moved === undefined || !addTo(hit, work.id, moved)) continue;
      // Looking again takes nothing out, and what comes after the look does not rest on it.
      if (!LOOKED.includes(work.kind)) open.push({ work, moved: hit.get(work.id) ?? null });
    }
  pullRoots(roots, target, hit);
  closeOpens(works, target, hit);
  lookAgain(works, target, hit);
  return hit;
}

/** Leads of a step that come out with it; null: all that it is. */
type Moved = ReadonlySet<string> | null;

/** What comes out of a later step when one that it rests on does; undefined: nothing. */
function movedOf(from: Work, moved: Moved, to: Work, stays: (from: Work, lead: string) => boolean): Moved | undefined {
  if (BUNDLES.includes(to.kind) && to.leads.length > 0) {
    const mine = new Set([...partsLeads(from, to, moved)].filter((l) => !stays(from, l)));
    return mine.size > 0 ? mine : undefined;
  }
  if (to.kind === "plug" && to.leads.length > 0 && to.leads.every((l) => stays(from, l))) return undefined;
  if (to.kind !== "plug") return null;
  return from.kind === "route" && moved && !to.leads.some((l) => moved.has(l)) ? undefined : new Set(to.leads);
}

/** Plugs at the supply's end of its cables, by the cable: `supply/sata/1`. */
function rootsOf(works: readonly Work[]): ReadonlyMap<string, Work[]> {
  const out = new Map<string, Work[]>();
  for (const w of works) {
    const cable = w.measure === "root" ? w.lead?.slice(0, w.lead.lastIndexOf(":")) : undefined;
    if (cable) out.set(cable, [...(out.get(cable) ?? []), w]);
  }
  return out;
}

const cableOf = (lead: string): string => lead.slice(0, lead.lastIndexOf(":"));

/** A modular cable is pulled at the supply: what it feeds keeps its plug, and the cable lies where it lies. */
const staysBehind = (roots: ReadonlyMap<string, Work[]>, from: Work, lead: string): boolean =>
  from.parts.some((p) => from.id === `mount:${p}` && lead.startsWith(`${p}/`)) &&
  roots.get(cableOf(lead))?.every((r) => r.done) === true &&
  !isRoot(roots, lead);
const isRoot = (roots: ReadonlyMap<string, Work[]>, lead: string): boolean => roots.get(cableOf(lead))?.some((r) => r.lead === lead) === true;

/** A supply comes out with none of its cables in: its own plugs are pulled. */
function pullRoots(roots: ReadonlyMap<string, Work[]>, target: Work, hit: Map<string, Moved>): void {
  for (const [cable, list] of roots) {
    const mount = `mount:${cable.split("/")[0]}`;
    if (mount !== target.id && !hit.has(mount)) continue;
    for (const r of list) if (r.done) hit.set(r.id, new Set(r.leads));
  }
}

/** True when that is more than was known. */
function addTo(hit: Map<string, Moved>, id: string, moved: Moved): boolean {
  const was = hit.get(id);
  if (was === null) return false;
  const all = was === undefined || moved === null ? moved : new Set([...was, ...moved]);
  if (was !== undefined && all !== null && all.size === was.size) return false;
  hit.set(id, all);
  return true;
}

/** The leads of a bundle that a step moves. */
function partsLeads(from: Work, bundle: Work, only: Moved): ReadonlySet<string> {
  const of = only ?? new Set(from.leads);
  const owned = bundle.leads.filter((l) => of.has(l) || from.parts.some((p) => l.startsWith(`${p}:`) || l.startsWith(`${p}/`)));
  return new Set(owned);
}

/** Nothing in the case comes out through a panel that is on. */
function closeOpens(works: ReadonlyMap<string, Work>, target: Work, hit: Map<string, Moved>): void {
  const touched = [target.id, ...hit.keys()].flatMap((x) => works.get(x) ?? []);
  if (!touched.some((w) => w.postures.length > 0 && w.kind !== "close")) return;
  if (works.get("close")?.done) hit.set("close", null);
}

/** What is tried only before something that is done does not come back by it; with a head or cooler off, it is started before it is closed. */
function lookAgain(works: ReadonlyMap<string, Work>, target: Work, hit: Map<string, Moved>): void {
  for (const id of [...hit.keys()]) {
    const w = works.get(id);
    if (w && w !== target && LOOKED.includes(w.kind) && w.mootOnce.some((m) => works.get(m)?.done)) hit.delete(id);
  }
  // The client's bag stays packed.
  if (target.id !== "pack") hit.delete("pack");
  const cools = [...hit.keys()].some((id) => ["head", "cooler"].includes(works.get(id)?.measure ?? ""));
  if (cools && works.get("first-start")?.done) hit.set("first-start", null);
}

const half = (n: number) => Math.round(n * 2) / 2;

function told(problem: Problem, works: ReadonlyMap<string, Work>, target: Work, hit: ReadonlyMap<string, Moved>): Undo {
  const whole = arranged(problem.works, problem.precedences);
  const place = new Map(whole.order.map((o, i) => [o.work.id, i]));
  const comesOut = [...hit].sort((a, b) => (place.get(b[0]) ?? 0) - (place.get(a[0]) ?? 0));
  const out = comesOut.flatMap(([x, only]): Out[] => {
    const w = works.get(x) as Work;
    if (LOOKED.includes(w.kind)) return [];
    const share = only && w.leads.length > 0 ? only.size / w.leads.length : 1;
    return [
      {
        step: x,
        title: w.title,
        leads: w.kind === "plug" ? 1 : 0,
        screws: w.screws,
        minutes: half(w.minutes.handsOn * OUT_SHARE * share),
        ...(only && share < 1 ? { only: [...only] } : {}),
      },
    ];
  });
  const undone = new Set(hit.keys());
  const after: Problem = { ...problem, works: problem.works.map((w) => (undone.has(w.id) ? { ...w, done: false } : w)) };
  const order = orderOfProblem(after);
  const needed = new Set([...undone, target.id]);
  const back = order.steps.filter((s) => needed.has(s.id));
  const anew = [...new Set(comesOut.flatMap(([x]) => works.get(x)?.anew ?? []))];
  const outMin = out.reduce((n, o) => n + o.minutes, 0);
  const shareOf = (x: string) => {
    const only = hit.get(x);
    const w = works.get(x);
    return only && w && w.leads.length > 0 && BUNDLES.includes(w.kind) ? only.size / w.leads.length : 1;
  };
  const backMin = back.reduce((n, s) => n + s.minutes.handsOn * shareOf(s.id), 0) + anew.filter((a) => a.startsWith("paste")).length * PASTE_MIN;
  const leads = out.reduce((n, o) => n + o.leads, 0);
  const screws = out.reduce((n, o) => n + o.screws, 0);
  const stays = problem.works.filter((w) => w.done && !undone.has(w.id)).map((w) => ({ step: w.id, title: w.title }));
  return {
    step: target.id,
    title: target.title,
    out,
    stays,
    anew,
    leads,
    screws,
    minutes: { out: half(outMin), back: half(backMin), whole: half(outMin + backMin) },
    turns: turnsAmong(back.flatMap((s) => s.posture ?? [])),
    back: back.map((s) => ({ step: s.id, title: s.title, ...(s.posture ? { posture: s.posture } : {}) })),
    words: wordsOf(out.length, leads, screws, half(outMin + backMin), anew),
  };
}

const turnsAmong = (list: readonly Posture[]): number => list.filter((p, i) => i > 0 && p !== list[i - 1]).length;
const count = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;

/** What comes out, counted: "2 steps come out again: 1 lead, 8 screws". */
function outWords(steps: number, leads: number, screws: number): string {
  const moved = [leads > 0 ? count(leads, "lead", "leads") : "", screws > 0 ? count(screws, "screw", "screws") : ""].filter(Boolean).join(", ");
  return `${count(steps, "step comes", "steps come")} out again${moved ? `: ${moved}` : ""}`;
}

function wordsOf(steps: number, leads: number, screws: number, minutes: number, anew: readonly string[]): string {
  if (steps === 0) return `Nothing has to come out. About ${count(Math.ceil(minutes), "minute", "minutes")}.`;
  const paste = anew.some((a) => a.startsWith("paste")) ? ", with new paste" : "";
  return `${outWords(steps, leads, screws)}; about ${Math.ceil(minutes)} minutes until it is as it was${paste}.`;
}

/** Done steps without those that come out: what `done` is afterwards. */
export const doneAfter = (problem: Problem, undo: Undo): ReadonlySet<string> => {
  const stays = new Set(undo.stays.map((s) => s.step));
  return new Set(problem.works.filter((w) => stays.has(w.id)).map((w) => w.id));
};
