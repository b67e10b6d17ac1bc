import { describe, expect, it } from "vitest";
import { demo, pluggedDemo } from "../../tests/fixtures/demo";
import { misplaced } from ".";

describe("a wrong place on record", () => {
  it("is a certain fault whose action is a move: the CPU's fan on a header for the case halts the start", async () => {
    const { types } = demo("fs-1041");
    const right = await pluggedDemo("fs-1041");
    const cpu = right.connections.find((c) => right.ports.get(c.port)?.port.role === "cpu-fan");
    expect(cpu).toBeDefined();
    const free = [...right.ports.values()].find(
      (p) => p.port.role === "case-fan" && p.port.family === "fan-4" && !right.atPort.get(p.address)?.length,
    );
    const to = free?.address ?? "";
    expect(to).not.toBe("");
    const wrong = await pluggedDemo("fs-1041", (l) => l.map((c) => (c.lead === cpu?.lead ? { ...c, port: to } : c)));
    const planned = new Map([[cpu?.lead ?? "", cpu?.port ?? ""]]);
    const [m, ...more] = misplaced(wrong, planned, types);
    expect(more).toEqual([]);
    expect(m).toMatchObject({ lead: cpu?.lead, from: to, to: cpu?.port });
    expect(m?.lines).toContain("fan-warning");
    expect(m?.action).toMatch(/Move .+ from .+ to .+, as planned/);
    expect(misplaced(right, planned, types)).toEqual([]);
  });
  it("that changes nothing of what is seen is none", async () => {
    const { types } = demo("fs-1041");
    const right = await pluggedDemo("fs-1041");
    const usb = right.connections.find(
      (c) => right.leads.get(c.lead)?.lead.role === "case-fan" && right.ports.get(c.port)?.part.type.kind === "board",
    );
    const free = [...right.ports.values()].find(
      (p) => p.port.role === "case-fan" && p.port.family === "fan-4" && !right.atPort.get(p.address)?.length,
    );
    if (!usb || !free) throw new Error("the demo has no case fan on the board, or no header is left");
    const moved = await pluggedDemo("fs-1041", (l) => l.map((c) => (c.lead === usb.lead ? { ...c, port: free.address } : c)));
    expect(misplaced(moved, new Map([[usb.lead, usb.port]]), types)).toEqual([]);
  });
});
