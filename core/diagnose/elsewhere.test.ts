import { describe, expect, it } from "vitest";
import { pluggedDemo } from "../../tests/fixtures/demo";
import { elsewhere, repairsOf } from ".";

const wordsOf = async (name: string, element: string, mode: string) => {
  const graph = await pluggedDemo(name);
  return repairsOf(graph, { id: "", element, mode, kind: "", words: "", perTenThousand: 1 })[0];
};

describe("what mends something in doubt", () => {
  it("no picture though it starts: a look at the monitor, in the card or in the board, before anything is unplugged", async () => {
    expect(await wordsOf("fs-1041", "monitor", "in an input")).toMatchObject({
      minutes: 1,
      words: expect.stringMatching(/in the card, not in the board\.$/),
    });
    expect(await wordsOf("fs-1044", "monitor", "in an input")).toMatchObject({ minutes: 1, words: expect.stringMatching(/in the board\.$/) });
  });
  it("a port in doubt: its lead goes where there is room, by name; where there is none, somebody looks into it", async () => {
    expect((await wordsOf("fs-1041", "board:SYS_FAN2", "dead"))?.words).toMatch(
      /^Supply off, mains out, press the button once\. Put FN-\d\d into SYS_FAN3, which is free, then start\.$/,
    );
    expect((await wordsOf("fs-1041", "board:DIMM_A2", "dead"))?.words).toContain("Put Memory 1 into DIMM_A1, which is free");
    expect((await wordsOf("fs-1041", "board:CPU_FAN", "dead"))?.words).toContain("Look into CPU_FAN with a light, for bent pins and dirt");
    // What sits in a slot takes as long as taking it out.
    expect((await wordsOf("fs-1041", "board:CPU", "dead"))?.minutes).toBeGreaterThanOrEqual(40);
  });
  it("a data plug goes beside, where its cable reaches", async () => {
    const graph = await pluggedDemo("fs-1041");
    expect(elsewhere(graph, "board:SATA_1", new Set())?.action).toMatch(/^Put .+ into SATA_\d, which is free$/);
    expect(elsewhere(graph, "board:CPU_FAN", new Set())).toBeUndefined();
  });
  it("with no port free, a lead changes places with one of its kind that was seen to work, and with no other", async () => {
    const graph = await pluggedDemo("fs-1045");
    const [mine, theirs] = ["hub-fan:FAN_6", "hub-fan:FAN_5"].map((p) => graph.atPort.get(p)?.[0]?.lead ?? "");
    // By hand: every port of its kind that is free is away.
    const kind = graph.ports.get("hub-fan:FAN_6")?.port.role;
    const ports = new Map([...graph.ports].filter(([a, p]) => p.port.role !== kind || graph.atPort.has(a)));
    const full = { ...graph, ports };
    expect(elsewhere(full, "hub-fan:FAN_6", new Set())).toBeUndefined();
    const other = elsewhere(full, "hub-fan:FAN_6", new Set([theirs ?? ""]));
    expect(other?.action).toMatch(/^Exchange FN-\d\d with FN-\d\d, which works in Fan hub FAN_5$/);
    expect(other?.moves).toEqual([
      { lead: mine, port: "hub-fan:FAN_5" },
      { lead: theirs, port: "hub-fan:FAN_6" },
    ]);
  });
  it("nothing that goes into the case begins with the supply on", async () => {
    const graph = await pluggedDemo("fs-1043");
    const { causesOf, repairsOf: all } = await import(".");
    for (const c of causesOf(graph))
      for (const r of all(graph, c)) {
        expect([r.id, r.minutes > 0]).toEqual([r.id, true]);
        if (!["set right", "update"].includes(r.kind) && r.target !== "monitor")
          expect([r.id, r.words.startsWith("Supply off, mains out")]).toEqual([r.id, true]);
        if (r.kind === "update") expect(r.caution).toMatch(/current must not go/);
      }
  });
});
