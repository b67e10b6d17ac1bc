import { describe, expect, it } from "vitest";
import type { Card, Step } from "../../core/order";
import { blockedBy, canNow, cardNow, coverersOf, inTwo, openOn } from "./cards";

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
