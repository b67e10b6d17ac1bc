import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cases } from "../../tests/cases";
import { demo, demoPlan, shelf } from "../../tests/fixtures/demo";
import { buildGraph } from "../assembly";
import { matchRows, orderList, partIds, pastedLine, proposeMounts } from ".";

describe("a pasted line", () => {
  it.each([
    ["2 x Whirrow 120", 2, "Whirrow 120"],
    ["Whirrow 120 (3)", 3, "Whirrow 120"],
    ["Whirrow 120 x2", 2, "Whirrow 120"],
    ["  - 4 × Vault 8 TB ", 4, "Vault 8 TB"],
    ["* Heron T40", 1, "Heron T40"],
    ["Coldwharf 360", 1, "Coldwharf 360"],
    ["16 GB 6000", 1, "16 GB 6000"],
    ["PSU: 1x Mossgate 750W", 1, "PSU Mossgate 750W"],
    ["RAM: 2 x 16GB Lathewell 5200", 2, "RAM 16GB Lathewell 5200"],
    ["Lathewell 2x16GB 5200", 2, "Lathewell 16GB 5200"],
    ["3 pcs Vault 8TB", 3, "Vault 8TB"],
    ["Vault 8 TB, qty 2", 2, "Vault 8 TB"],
    ["Whirrow 140 (x3)", 3, "Whirrow 140"],
  ])("%s", (line, count, text) => {
    expect(pastedLine(line, 7)).toEqual({ line: 7, text, count });
  });
  it("an empty line is none", () => {
    expect(pastedLine("   ", 1)).toBeUndefined();
  });
});

describe("a mail, as people write them", () => {
  const read = (line: string) => {
    const row = pastedLine(line, 1);
    if (!row) throw new Error("an empty line");
    return { row, ...matchRows([row], shelf) };
  };
  const drive = shelf.find((t) => t.kind === "drive" && (t.ratings.sizeGb ?? 0) >= 2000 && t.ports.length > 0);
  const memory = shelf.find((t) => t.kind === "memory" && t.ratings.sizeGb === 16);
  const supply = shelf.find((t) => t.kind === "supply" && t.ratings.powerW === 850);
  it("amounts, sizes in any spelling and kind words before or after: the same part", () => {
    if (!drive || !memory || !supply) throw new Error("the shelf has changed");
    const tb = (drive.ratings.sizeGb ?? 0) / 1000;
    for (const line of [`2x ${drive.maker} ${drive.name}`, `HDD: 2 x ${drive.name}`, `${drive.name} hard drive (2)`]) {
      const r = read(line);
      expect([line, r.row.count, [...r.matched.map((m) => m.type.id), ...r.aside.flatMap((a) => a.near.map((n) => n.id))][0]]).toEqual([
        line,
        2,
        drive.id,
      ]);
    }
    for (const line of [`storage ${tb}TB`, `drive ${tb} TB`, `${tb * 1000}GB SSD`]) {
      const r = read(line);
      const first = r.matched[0]?.type ?? shelf.find((t) => t.id === r.aside[0]?.near[0]?.id);
      expect([line, first?.kind, first?.ratings.sizeGb]).toEqual([line, "drive", tb * 1000]);
    }
    const psu = read("PSU: 850W");
    const first = psu.matched[0]?.type ?? shelf.find((t) => t.id === psu.aside[0]?.near[0]?.id);
    expect([first?.kind, first?.ratings.powerW]).toEqual(["supply", 850]);
    const ram = read("2 x 16GB RAM");
    expect(ram.row.count).toBe(2);
    const kit = ram.matched[0]?.type ?? shelf.find((t) => t.id === ram.aside[0]?.near[0]?.id);
    expect([kit?.kind, kit?.ratings.sizeGb]).toEqual(["memory", 16]);
  });
});

describe("rows against the shelf", () => {
  const row = (text: string, count = 1) => ({ line: 1, text, count });
  const type = (text: string) => matchRows([row(text)], shelf).matched[0]?.type.id;
  it("by id, by name, by maker and name, by all its words; capitals and marks do not matter", () => {
    expect(type("whirrow-120-rad")).toBe("whirrow-120-rad");
    expect(type("WHIRROW 120 R")).toBe("whirrow-120-rad");
    expect(type("Tarnbrook Heron T40")).toBe("tarnbrook-heron-t40");
    expect(type("halcyra 340")).toBe("halcyra-340");
    expect(type("T60 Heron")).toBe("tarnbrook-heron-t60");
  });
  it("what more than one answers to is not guessed; what none answers to comes with what is near", () => {
    const r = matchRows([row("Whirrow long"), row("Granite 9000"), row("Heron board of some kind")], shelf);
    expect(r.matched).toEqual([]);
    expect(r.aside[0]).toMatchObject({ because: expect.stringMatching(/^\d+ part types answer to it$/) });
    expect(r.aside[0]?.near.length).toBeGreaterThan(1);
    expect(r.aside[1]).toMatchObject({ because: "the shelf has nothing like it", near: [] });
    expect(r.aside[2]?.near.map((n) => n.name).join()).toContain("Heron");
  });
  it("nothing is lost: every row is understood or kept aside, once", () => {
    fc.assert(
      fc.property(fc.array(fc.oneof(fc.constantFrom(...shelf.map((t) => t.name)), fc.string({ maxLength: 30 })), { maxLength: 30 }), (names) => {
        const rows = names.map((text, i) => ({ line: i + 1, text, count: 1 }));
        const r = matchRows(rows, shelf);
        expect([...r.matched.map((m) => m.row.line), ...r.aside.map((a) => a.row.line)].sort((a, b) => a - b)).toEqual(rows.map((x) => x.line));
      }),
      cases(60, 73),
    );
  });
});

describe("parts that join", () => {
  it("get the kind as id where there is one of it, else a number that is free", () => {
    expect(partIds(["board", "fan", "fan", "memory", "board"], new Set(["fan-1", "case"]))).toEqual(["board", "fan-2", "fan-3", "mem-1", "board-1"]);
  });
  it("hang in free mounts of their size, in the case's own order; what finds none hangs nowhere", () => {
    const shell = shelf.find((t) => t.id === "brindlecote-desk");
    const fans = (n: number, sizeMm: number) => Array.from({ length: n }, (_, i) => ({ id: `f${i}`, kind: "fan" as const, sizeMm }));
    const m = proposeMounts(shell, [...fans(4, 120), { id: "d", kind: "drive", sizeMm: 0 }]);
    expect([...m.keys()].filter((k) => k.startsWith("f"))).toHaveLength(3);
    expect(new Set(m.values()).size).toBe(m.size);
    expect(m.get("d")).toBe("cage-1");
    expect(proposeMounts(shell, fans(2, 140)).size).toBe(0);
    // A module is no drive that hangs.
    expect(proposeMounts(shell, [{ id: "d", kind: "drive", seated: true }]).size).toBe(0);
    expect(proposeMounts(undefined, fans(2, 120)).size).toBe(0);
  });
});

describe("the order list", () => {
  it("standoffs, card support and paste, each with its reason, before any plan", () => {
    const rebuilt = orderList(demo("fs-1047").graph);
    expect(rebuilt.find((i) => i.id === "standoffs")).toMatchObject({
      count: 4,
      needFor: "mounting",
      because: expect.stringContaining("A, G, K, M"),
    });
    expect(rebuilt.find((i) => i.id.startsWith("paste"))).toMatchObject({ needFor: "cooling" });
    expect(orderList(demo("fs-1041").graph).find((i) => i.id === "support:card")?.because).toContain("336 mm");
  });
  it("what the plan takes from the shelf or wants to order stands in it, with what it carries", async () => {
    const made = await demoPlan("fs-1044");
    const list = orderList(buildGraph(made.build, demo("fs-1044").types)).filter((i) => i.needFor === "wiring");
    const extra = made.build.parts.filter((p) => p.from !== "client");
    expect(list.reduce((s, i) => s + i.count, 0)).toBe(extra.length);
    for (const i of list) expect(i.because).toMatch(/^(Carries|Taken)/);
  });
  it("missing data cables are counted", () => {
    const { build, types } = demo("fs-1041");
    const more = [1, 2, 3, 4, 5, 6, 7].map((n) => ({ id: `ssd-x${n}`, type: "pebblestone-slate-2000", from: "client" as const }));
    const list = orderList(buildGraph({ ...build, parts: [...build.parts, ...more] }, types));
    expect(list.find((i) => i.id === "sata-cables")?.count).toBeGreaterThan(0);
  });
});
