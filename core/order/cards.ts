import { type Minutes, POSTURE_WORDS, type Posture, type Step } from "./model";

export type CardKind = "step" | "edge" | "assembly" | "gate";

/** What hands do in one go: one card of the bench, and of the order's strip. */
export interface Card {
  /** Its first step names it: as long as that is not done it stays the same card. */
  id: string;
  kind: CardKind;
  title: string;
  steps: Step[];
  posture?: Posture;
  /** The case is turned before it. */
  turn?: Posture;
  minutes: Minutes;
  done: boolean;
}

const of = (n: number, one: string): string => `${n} ${n === 1 ? one : `${one}s`}`;

/** The supply's card says its own order: plugged and then slid in, or the other way round. */
function supplyTitle(steps: readonly Step[], plugs: number): string {
  const slide = steps.findIndex((s) => s.kind !== "plug");
  if (slide < 0) return `Plug ${of(plugs, "cable")} into the supply`;
  if (slide === 0) return `Slide the supply in, then plug ${of(plugs, "cable")} into it`;
  return slide === steps.length - 1
    ? `Plug ${of(plugs, "cable")} into the supply and slide it in`
    : `Plug ${of(slide, "cable")} into the supply, slide it in, then plug ${steps.length - 1 - slide} more`;
}

/** Leads that go behind the tray, and what is joined there or where it hangs. */
function ledTitle(steps: readonly Step[], plugs: number): string {
  const led = steps.reduce((m, s) => m + (s.kind === "route" ? s.leads.length : 0), 0);
  if (led === 0) return `Join ${of(plugs, "lead")} inside the case`;
  return `Lead ${of(led, "lead")} behind the tray${plugs > 0 ? ` and join ${plugs}` : ""}`;
}

const EDGE = /^edge:([^:]+):(.+)$/;

function titleOf(steps: readonly Step[]): { kind: CardKind; title: string } {
  const [first] = steps;
  if (!first) return { kind: "step", title: "" };
  if (first.kind === "gate") return { kind: "gate", title: first.title };
  if (steps.length === 1) return { kind: "step", title: first.title };
  const n = steps.length;
  const plugs = steps.filter((s) => s.kind === "plug").length;
  const edge = EDGE.exec(first.group);
  if (edge) return { kind: "edge", title: `Plug the ${edge[2] === "inside the board" ? "inner ports" : edge[2]}: ${of(plugs, "plug")}` };
  const group = first.group.split(":")[0] ?? "";
  if (steps.every((s) => s.measure === "seat-memory")) return { kind: "assembly", title: `Put ${n} memory modules in` };
  const titles: Record<string, string> = {
    table: `Put the board together on the table: ${n} things`,
    open: `Make the case ready: ${n} things`,
    case: `Make the tray ready: ${n} things`,
    fans: `Fit the fans: ${n}`,
    lights: `Fix the lights: ${n}`,
    behind: `Fix what sits behind the tray: ${n}`,
    hubs: `Fix the hubs: ${n}`,
    supply: supplyTitle(steps, plugs),
    led: ledTitle(steps, plugs),
    "drives-behind": `Plug the drives behind the tray: ${of(plugs, "plug")}`,
    hub: `Plug ${first.groupName ?? "the hub"}: ${of(plugs, "plug")}`,
    cage: plugs > 0 ? `Drives: ${of(plugs, "plug")}, then into the cage` : `Slide ${of(n, "drive")} into the cage`,
    dressed: `Dress the leads: ${of(n, "loom")}`,
    close: "Close the case and pack the bag",
  };
  if (group === "radiator") return { kind: "assembly", title: `Put the radiator together on the table: ${n} things` };
  if (group === "card")
    return { kind: "assembly", title: `${first.title}${plugs > 1 ? `, then its ${plugs - 1 === 1 ? "plug" : `${plugs - 1} plugs`}` : ""}` };
  return {
    kind: first.kind === "plug" && !["table", "supply", "led", "cage"].includes(group) ? "edge" : "assembly",
    title: titles[group] ?? `${first.title}, and ${n - 1} more`,
  };
}

/** Steps that follow one another at one place are one card; a turn of the case begins a new one. */
export function cardsOf(steps: readonly Step[], blocks: readonly Posture[]): Card[] {
  const out: Card[] = [];
  let at: { steps: Step[]; key: string } | undefined;
  const groups: Step[][] = [];
  for (const s of steps) {
    const key = `${s.block} ${s.group}`;
    if (at?.key === key) at.steps.push(s);
    else {
      at = { steps: [s], key };
      groups.push(at.steps);
    }
  }
  let lies: Posture | undefined = blocks[0];
  for (const list of groups) {
    const first = list[0] as Step;
    const posture = list.find((s) => s.posture)?.posture;
    const sum = (of: keyof Minutes) => Math.round(list.reduce((n, s) => n + s.minutes[of], 0) * 10) / 10;
    out.push({
      id: first.id,
      ...titleOf(list),
      steps: list,
      ...(posture ? { posture } : {}),
      ...(posture && posture !== lies ? { turn: posture } : {}),
      minutes: { handsOn: sum("handsOn"), unattended: sum("unattended") },
      done: list.every((s) => s.done),
    });
    if (posture) lies = posture;
  }
  return numbered(out);
}

/** No two cards have the same title: who has pressed Done sees that another one came. */
function numbered(cards: readonly Card[]): Card[] {
  const all = new Map<string, Card[]>();
  for (const c of cards) all.set(c.title, [...(all.get(c.title) ?? []), c]);
  return cards.map((c) => {
    const same = all.get(c.title) ?? [];
    return same.length < 2 ? c : { ...c, title: `${c.title} (${same.indexOf(c) + 1} of ${same.length})` };
  });
}

export const turnWords = (to: Posture): string => `Turn the case: ${POSTURE_WORDS[to]}`;
