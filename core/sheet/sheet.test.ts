import fc from "fast-check";
import { XMLParser, XMLValidator } from "fast-xml-parser";
import { beforeAll, describe, expect, it } from "vitest";
import { DEMO, demo, demoPlan } from "../../tests/fixtures/demo";
import { buildGraph, type Graph } from "../assembly";
import { stepsOf } from "../order";
import { boardDrawing, boardRegion, connectionsCsv, readConnections, sheetOf, svgOf } from ".";
import { spread } from "./drawing";

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
    const steps = stepsOf(g).steps.flatMap((s) => (s.lead ? [s.lead] : []));
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

describe("the board plan as SVG", () => {
  it.each(DEMO)("%s is well-formed XML (fast-xml-parser), to scale in mm, with every port and every wired tag", (name) => {
    const g = planned(name);
    const d = boardDrawing(g, `${name} <"&'> plan`);
    if (!d) throw new Error("no board");
    const svg = svgOf(d);
    expect(XMLValidator.validate(svg)).toBe(true);
    const root = new XMLParser({ ignoreAttributes: false }).parse(svg).svg;
    expect(root["@_width"]).toBe(`${d.w}mm`);
    expect(root["@_viewBox"]).toBe(`0 0 ${d.w} ${d.h}`);
    const board = g.parts.get("board");
    // The page, the board, and one box a port.
    expect(root.rect).toHaveLength(2 + (board?.type.ports.length ?? 0));
    const words = d.items.flatMap((i) => (i.kind === "text" ? [i.text] : []));
    for (const p of board?.type.ports ?? []) expect(words).toContain(p.label);
    const lines = d.items.filter((i) => i.kind === "line");
    const wired = (board?.type.ports ?? []).filter((p) =>
      (g.atPort.get(`board:${p.id}`) ?? []).some((c) => g.leads.get(c.lead)?.loom !== "seat" && (g.leads.get(c.lead)?.lead.lengthMm ?? 0) > 0),
    );
    expect(lines).toHaveLength(wired.length);
  });
  it("labels along an edge keep their order and their distance, and none is lost", () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 300 }), { maxLength: 60 }), fc.integer({ min: 1, max: 30 }), (list, pitch) => {
        const wanted = [...list].sort((a, b) => a - b);
        const at = spread(wanted, pitch, 300);
        expect(at).toHaveLength(wanted.length);
        const fits = (wanted.length - 1) * pitch <= 300;
        for (let i = 1; i < at.length; i++) {
          const gap = (at[i] ?? 0) - (at[i - 1] ?? 0);
          if (fits) expect(gap).toBeGreaterThanOrEqual(pitch - 1e-9);
          else expect(gap).toBeGreaterThan(0);
        }
        for (const x of at) {
          expect(x).toBeGreaterThanOrEqual(-1e-9);
          expect(x).toBeLessThanOrEqual(300 + 1e-9);
        }
      }),
      { numRuns: 200, seed: 101 },
    );
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
      { numRuns: 150, seed: 103 },
    );
  });
});
