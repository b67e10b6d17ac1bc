import { describe, expect, it } from "vitest";
import { Policy } from "../assembly";
import { SCHOOLS, schoolInWords, WORK_SCHOOLS } from ".";

describe("schools", () => {
  it("are the questions of a job's policy, each answer one that it takes, and none of them left without words", () => {
    // What a shop may order, and a figure, are no questions on which technicians differ.
    const questions = Object.keys(Policy.shape).filter((k) => !["mayOrder", "cpuPlugW"].includes(k));
    expect(SCHOOLS.map((s) => s.id).sort()).toEqual(questions.sort());
    for (const s of SCHOOLS) {
      const answers = Object.keys(s.options);
      expect(answers.length).toBeGreaterThan(1);
      for (const a of answers) {
        const value = s.id === "mainsV" ? Number(a) : a;
        expect([s.id, a, Policy.safeParse({ [s.id]: value }).success]).toEqual([s.id, a, true]);
        expect(schoolInWords(s.id, a).answer).toBe((s.options as Record<string, { words: string }>)[a]?.words);
      }
      expect([s.id, Policy.safeParse({ [s.id]: "no such answer" }).success]).toEqual([s.id, false]);
      // What is taken when nobody says is one of them.
      expect(answers).toContain(String(Policy.parse({})[s.id]));
    }
  });
  it("of the work say what each answer risks", () => {
    for (const s of WORK_SCHOOLS) for (const o of Object.values(s.options)) expect([s.id, (o.risk ?? "").length > 0]).toEqual([s.id, true]);
  });
  it("an answer that nobody knows is said as it came", () => {
    expect(schoolInWords("no-such", "x")).toEqual({ school: "no-such", answer: "x" });
  });
});
