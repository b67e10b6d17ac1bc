import { describe, expect, it } from "vitest";
import { buildGraph, type Connection, type Part } from "../../core/assembly";
import type { LeadRow } from "../../server/views/lead-rows";
import { demo } from "../../tests/fixtures/demo";
import { findLeads, findPorts, groupLeads, scanned } from "./find-leads";

const row = (tag: string, name: string, fromPart: string, more: Partial<LeadRow> = {}): LeadRow => ({
  address: `${fromPart}:${tag}`,
  tag,
  name,
  loom: "fans",
  family: "fan-4",
  lengthMm: 500,
  state: "planned",
  fixed: false,
  why: "",
  need: "wanted",
  fromPart,
  origin: { xMm: 0, yMm: 0 },
  out: false,
  ...more,
});
const parts = [
  { id: "fan-a", type: "t", serial: "WR-0001" },
  { id: "fan-b", type: "t" },
  { id: "board", type: "t" },
] as Part[];
const leads = [
  row("FN-01", "Front fan upper", "fan-a", { port: "board:SYS_FAN1", portName: "SYS_FAN1" }),
  row("FN-02", "Rear fan", "fan-b", { state: "free" }),
  row("LT-01", "Strip", "fan-b", { loom: "lighting", severity: "stop", port: "board:LIGHT1", portName: "LIGHT1" }),
];
const tags = (list: readonly LeadRow[]) => list.map((l) => l.tag);

describe("finding a port with room", () => {
  const { build, types } = demo("fs-1041");
  const names = (text: string, connections: Connection[] = []) => findPorts(buildGraph({ ...build, connections }, types), text).map((p) => p.name);
  const planned = (lead: string, port: string, place?: number[]): Connection => ({ lead, port, state: "planned", ...(place ? { place } : {}) });
  it("by its name with or without the underscore, or by what goes in", () => {
    expect(names("sys fan4")).toEqual(["SYS_FAN4"]);
    expect(names("SYS_FAN")).toEqual([1, 2, 3, 4, 5].map((n) => `SYS_FAN${n}`).slice(0, names("SYS_FAN").length));
    expect(names("SYS_FAN").length).toBeGreaterThan(2);
    expect(names("front panel").some((n) => n.startsWith("PANEL"))).toBe(true);
    expect(names("no such port")).toEqual([]);
  });
  it("one plug fills a header; half a USB 2 header and some pins of the panel leave room", () => {
    expect(names("sys fan4", [planned("fan-rear:lead", "board:SYS_FAN4")])).toEqual([]);
    expect(names("usb2_1")).toEqual(["USB2_1"]);
    expect(names("usb2_1", [planned("case:usb2", "board:USB2_1", [1])])).toEqual(["USB2_1"]);
    expect(names("usb2_1", [planned("case:usb2", "board:USB2_1", [1, 2])])).toEqual([]);
    expect(names("panel1", [planned("case:power-switch", "board:PANEL1", [6, 8])])).toEqual(["PANEL1"]);
  });
  it("none before something is typed, and never more than a screen of them", () => {
    expect(names("  ")).toEqual([]);
    expect(names("a")).toHaveLength(24);
  });
});

describe("finding a lead", () => {
  it("by tag, by words of its name in any order, by its port with or without the underscore, by serial", () => {
    expect(tags(findLeads(leads, parts, "fn-02", "all"))).toEqual(["FN-02"]);
    expect(tags(findLeads(leads, parts, "upper front", "all"))).toEqual(["FN-01"]);
    expect(tags(findLeads(leads, parts, "sys fan1", "all"))).toEqual(["FN-01"]);
    expect(tags(findLeads(leads, parts, "wr 0001", "all"))).toEqual(["FN-01"]);
    expect(findLeads(leads, parts, "nothing like it", "all")).toEqual([]);
  });
  it("by state, and by whether a finding is about it", () => {
    expect(tags(findLeads(leads, parts, "", "free"))).toEqual(["FN-02"]);
    expect(tags(findLeads(leads, parts, "", "finding"))).toEqual(["LT-01"]);
    expect(tags(findLeads(leads, parts, "", "open"))).toEqual(["FN-01", "FN-02", "LT-01"]);
    expect(findLeads(leads, parts, "", "wrong")).toEqual([]);
  });
  it("by scan: the tag on the lead or the serial on its part, nothing else", () => {
    expect(scanned(leads, parts, "fn-02")?.tag).toBe("FN-02");
    expect(scanned(leads, parts, "WR-0001")?.tag).toBe("FN-01");
    expect(scanned(leads, parts, "WR-00")).toBeUndefined();
  });
  it("in groups that hold every lead once", () => {
    for (const g of ["loom", "part", "port"] as const)
      expect(
        groupLeads(leads, parts, (id) => id, g)
          .flatMap((x) => tags(x.leads))
          .sort(),
      ).toEqual(tags(leads));
    expect(groupLeads(leads, parts, (id) => id, "port").map((g) => g.name)).toEqual(["board", "No port"]);
    expect(groupLeads(leads, parts, (id) => id, "part").map((g) => g.name)).toEqual(["fan-a", "fan-b"]);
  });
});
