import { describe, expect, it } from "vitest";
import type { BenchJob } from "../../server/views/benches";
import { dueWord, verdictOf } from "./verdict";

const job = (number: string, more: Partial<BenchJob> = {}): BenchJob => ({
  number,
  client: "",
  title: "",
  stage: "bench",
  bench: 1,
  technician: null,
  dueOn: "2026-11-30",
  waitingFor: null,
  waitingUntil: null,
  next: "",
  stops: 0,
  openFaults: 0,
  share: 0,
  minutes: 0,
  ...more,
});
const today = "2026-11-23";

describe("does the week hold?", () => {
  it("holds when nothing is late, in danger or waiting too long", () => {
    expect(verdictOf([job("A"), job("B", { stage: "handed-over", dueOn: "2026-11-01" })], today)).toBe("All promises stand: 1 job, none in danger.");
  });
  it("says what to do where there is no job at all", () => {
    expect(verdictOf([], today)).toBe("No job is open. Make one, or read one from a build file.");
  });
  it("names what is late, what has a fault and is due, and what waits longer than it may", () => {
    const list = [
      job("LATE", { dueOn: "2026-11-21" }),
      job("FAULT", { openFaults: 1, dueOn: "2026-11-24" }),
      job("WAIT", { stage: "waiting", waitingUntil: "2026-12-02", dueOn: "2026-12-01" }),
    ];
    expect(verdictOf(list, today)).toBe(
      "In danger: LATE (2 days late) and FAULT (a fault is open, due tomorrow) and WAIT (its delivery comes too late).",
    );
  });
  it("a fault on a job due next week does not spoil the week yet", () => {
    expect(verdictOf([job("A", { openFaults: 2 })], today)).toMatch(/^All promises stand: /);
  });
  it.each([
    [undefined, "no date"],
    [-1, "1 day late"],
    [-3, "3 days late"],
    [0, "today"],
    [1, "tomorrow"],
    [4, "in 4 days"],
  ] as const)("%s days is %s", (days, word) => {
    expect(dueWord(days)).toBe(word);
  });
});
