import fc from "fast-check";
import { beforeAll, describe, expect, it } from "vitest";
import { cases } from "../../tests/cases";
import { DEMO, demo, demoPlan } from "../../tests/fixtures/demo";
import { buildGraph, type Graph } from "../assembly";
import { orderOf } from "../order";
import { boardRegion, connectionsCsv, readConnections, sheetOf } from ".";

const graphs = new Map<string, Graph>();
const planned = (name: string) => graphs.get(name) as Graph;
beforeAll(async () => {
  for (const name of DEMO) graphs.set(name, buildGraph((await demoPlan(name)).build, demo(name).types));
}, 120_000);

describe("the wiring sheet", () => {
  it.each(DEMO)("%s: every connection once, in the order of the steps; what is free and what is in the bag beside it", (name) => {
    const g = planned(name);
    const sheet = sheetOf(g);
    expect(sheet.rows.map((r) => r.lead).sort()).toEqual(g.connections.map((c) => c.lead).sort());
    expect(sheet.rows.map((r) => r.order)).toEqual(sheet.rows.map((_, i) => i + 1));
    const steps = orderOf(g).steps.flatMap((s) => (s.lead ? [s.lead] : []));
    expect(sheet.rows.map((r) => r.lead).filter((l) => steps.includes(l))).toEqual(steps.filter((l) => g.ofLead.has(l)));
    for (const f of sheet.free) expect(g.ofLead.has(f.end)).toBe(false);
    for (const r of sheet.rows) if (r.runMm !== undefined) expect(r.lengthMm).toBeGreaterThan(0);
  });
  it("names the part of the board by thirds: FS-1041's 24-pin at 238 of 244 mm across and 110 of 305 mm down", () => {
    const g = planned("fs-1041");
    const port = g.ports.get("board:ATX_PWR");
    const at = port && g.boardRect ? [port.at.xMm - g.boardRect.xMm, port.at.yMm - g.boardRect.yMm] : [];
    expect(at[0]).toBeGreaterThan((244 / 3) * 2);
    expect(port && boardRegion(g, port)).toBe("board, middle right");
    const outlet = [...g.ports.values()].find((p) => p.port.role === "outlet");
    expect(outlet && boardRegion(g, outlet)).toMatch(/^on Mossgate/);
  });
});

describe("the connection list", () => {
  it.each(DEMO)("%s out and in again: every row, nothing else", (name) => {
    const g = planned(name);
    const r = readConnections(connectionsCsv(sheetOf(g)), g);
    if (!r.ok) throw new Error(r.sentence);
    expect(r.faults).toEqual([]);
    const key = (c: { lead: string; port: string; place?: number[] | undefined }) => `${c.lead} ${c.port} ${c.place?.join() ?? ""}`;
    expect(r.rows.map(key).sort()).toEqual(g.connections.map(key).sort());
  });
  const read = (text: string) => {
    const r = readConnections(text, planned("fs-1041"));
    return r.ok ? { rows: r.rows.length, said: r.faults.join(" ") } : { rows: -1, said: r.sentence };
  };
  it.each([
    ["lead,into\nx,y", -1, 'There is no column "port"; the columns are lead, into. Nothing was fixed.'],
    ["a,b\n1,2", -1, 'There is no column "lead" and no column "port"'],
    ["lead,port\nghost:x,board:CPU_FAN", 0, 'Line 2: there is no lead "ghost:x" in this job.'],
    ["lead,port\n=cmd(),board:CPU_FAN", 0, 'Line 2: there is no lead "=cmd()" in this job.'],
    ["lead,port\ncase:power-switch,board:NOWHERE", 0, 'there is no port "board:NOWHERE"'],
    ["lead,port\ncase:power-switch,board:CPU_FAN", 0, "does not go into CPU_FAN"],
    ["lead,port,place\ncase:power-switch,board:PANEL1,6 x", 0, 'the place "6 x" is not a list of pins from 1 to 30'],
    [
      "lead,port,place\ncase:power-switch,board:PANEL1,6 8\ncase:power-switch,board:PANEL1,5 7",
      0,
      "Lines 2 and 3 put case:power-switch into two ports",
    ],
    ["lead,port,place\ncase:power-switch,board:PANEL1,6 8\ncase:reset,board:PANEL1,8 6", 0, "Lines 2 and 3 both take PANEL1. Neither was fixed."],
    ["lead,port,place\ncase:power-switch,board:PANEL1,6 8\ncase:reset,board:PANEL1,5 7", 2, ""],
  ])("%j", (text, rows, words) => {
    const r = read(text);
    expect(r.rows).toBe(rows);
    expect(r.said).toContain(words);
  });
  it("whatever is in the file, it answers with rows or sentences", () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 400 }), (text) => {
        const r = readConnections(`lead,port,place\n${text}`, planned("fs-1041"));
        if (r.ok) expect(r.rows.length).toBeLessThanOrEqual(600);
        else expect(r.sentence.length).toBeGreaterThan(10);
      }),
      cases(150, 103),
    );
  });
});
