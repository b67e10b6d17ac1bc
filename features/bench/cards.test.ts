import { describe, expect, it } from "vitest";
import type { Card, Step } from "../../core/order";
import { blockedBy, canNow, cardNow, coverersOf, inTwo, openOn, stopOn } from "./cards";

const step = (id: string, after: string[] = [], done = false): Step => ({
  id,
  kind: "fit",
  title: id,
  detail: "",
  postures: [],
  minutes: { handsOn: 1, unattended: 0 },
  minutesFrom: "practice",
  measure: id,
  tools: [],
  parts: [],
  leads: [],
  screws: 0,
  takesOff: [],
  putsBack: [],
  where: { at: "table" },
  done,
  after: after.map((s) => ({ step: s, kind: "needs", why: "" })),
  covers: [],
  block: 0,
});
const card = (...steps: Step[]): Card => ({
  id: steps[0]?.id ?? "",
  kind: "step",
  title: "",
  steps,
  minutes: { handsOn: 1, unattended: 0 },
  done: steps.every((s) => s.done),
});
const at = (cards: Card[], skipped: Record<string, { reason: string }> = {}) => {
  const blocked = blockedBy(
    cards.flatMap((c) => c.steps),
    skipped,
  );
  return cards[cardNow(cards, skipped, blocked)]?.id;
};

describe("where hands are", () => {
  it("at the first card that is not done", () => {
    expect(at([card(step("a", [], true)), card(step("b")), card(step("c"))])).toBe("b");
    expect(at([card(step("a", [], true))])).toBeUndefined();
  });
  it("a skipped step is passed over with all that needs it, and comes again before that", () => {
    const cards = [card(step("a")), card(step("b", ["a"])), card(step("c")), card(step("d", ["b"]))];
    expect(at(cards, { a: { reason: "missing" } })).toBe("c");
    const later = [card(step("a")), card(step("b", ["a"])), card(step("c", [], true)), card(step("d", ["b"]))];
    expect(at(later, { a: { reason: "missing" } })).toBe("a");
  });
  it("Done on a card means what is open and not skipped; a skipped one is never done by the way", () => {
    const both = card(step("a"), step("b"), step("c", [], true));
    const skipped = { a: { reason: "missing" } };
    expect(openOn(both, skipped, blockedBy(both.steps, skipped)).map((s) => s.id)).toEqual(["b"]);
    const only = card(step("a"), step("c", [], true));
    expect(openOn(only, skipped, blockedBy(only.steps, skipped)).map((s) => s.id)).toEqual(["a"]);
  });
  it("a forgotten step is known to be covered once what hides it is done", () => {
    const shield = step("shield");
    const board = { ...step("board", [], true), after: [{ step: "shield", kind: "covers" as const, why: "" }] };
    expect(coverersOf(shield, [shield, board]).map((s) => s.id)).toEqual(["board"]);
    expect(coverersOf(shield, [shield, { ...board, done: false }])).toEqual([]);
    expect(coverersOf({ ...shield, done: true }, [shield, board])).toEqual([]);
  });
  it("on a card that is only looked at, nothing is ticked before what it needs", () => {
    const a = step("a");
    const b = step("b", ["a"]);
    expect(canNow(b, card(b), [a, b])).toBe(false);
    expect(canNow(b, card(b), [{ ...a, done: true }, b])).toBe(true);
    expect(canNow(b, card(a, b), [a, b])).toBe(true);
  });
});

describe("a detail in two", () => {
  it("stays whole where it is short; else it ends between sentences, and nothing of it is lost", () => {
    expect(inTwo("Short. Of 12.5 mm.")).toEqual(["Short. Of 12.5 mm.", ""]);
    const long =
      "Plug ATX, CPU1 and CPU_FAN, two modules in; nothing else. It draws 1.5 A at 12.0 V. A spare cooler stands in for the liquid one. Then start it.";
    const [first, rest] = inTwo(long);
    expect([first, rest]).toEqual([
      "Plug ATX, CPU1 and CPU_FAN, two modules in; nothing else. It draws 1.5 A at 12.0 V.",
      "A spare cooler stands in for the liquid one. Then start it.",
    ]);
    const one = `${"word ".repeat(40)}end.`;
    expect(inTwo(one)).toEqual([one, ""]);
  });
});

describe("what stops a card", () => {
  const step = (kind: string, parts: string[], lead?: string) =>
    ({ id: `${kind}:${parts.join()}`, kind, parts, leads: [], done: false, ...(lead ? { lead } : {}) }) as never;
  const could = { severity: "warn" as const, ends: ["card-1"], holds: ["card-1"] };
  const isSeat = (s: { lead?: string }) => s.lead?.endsWith(":seat") ?? false;
  const on = (s: never, finding: { severity: "stop" | "warn" | "note"; ends: string[]; holds?: string[] } = could) =>
    stopOn([finding], { steps: [s] } as never, [s], isSeat as never);
  it("a length to be measured first holds what puts that part in, by hand or into its slot, and nothing else", () => {
    expect(on(step("plug", ["card-1"], "card-1:seat"))).toBe(could);
    expect(on(step("fit", ["card-1"]))).toBe(could);
    for (const other of [step("check", ["card-1"]), step("plug", ["card-1"], "supply/gfx/1:plug-1"), step("fit", ["cooler"]), step("gate", [])])
      expect(on(other)).toBeUndefined();
    // Waived by somebody it is a note, and holds nothing.
    expect(on(step("fit", ["card-1"]), { ...could, severity: "note" })).toBeUndefined();
  });
  it("a stop holds the card of its lead", () => {
    const stop = { severity: "stop" as const, ends: ["supply/cpu/1:root-1"] };
    expect(on(step("plug", [], "supply/cpu/1:root-1"), stop)).toBe(stop);
    expect(on(step("plug", [], "supply/gfx/1:root-1"), stop)).toBeUndefined();
  });
});
