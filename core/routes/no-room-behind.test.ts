import { describe, expect, it } from "vitest";
import { demo } from "../../tests/fixtures/demo";
import { type Build, buildGraph } from "../assembly";
import { contradictions, type PartType } from "../catalogue";
import { checkParts } from "../checks";
import { orderOf } from "../order";
import { plan } from "../plan";
import { routesOf } from ".";

/** A demo machine in an open frame: nothing behind its tray, no panel, no glass, no filter. */
async function framed(name: string) {
  const { build, types } = demo(name);
  const frame = (t: PartType): PartType => ({
    ...t,
    body: {
      ...t.body,
      behindTrayMm: 0,
      panels: 0,
      glass: false,
      mounts: t.body.mounts.filter((m) => m.region !== "behind-tray").map((m) => ({ ...m, filter: false })),
    },
  });
  const own = (id: string) => {
    const t = types(id);
    return t?.kind === "case" ? frame(t) : t;
  };
  const behind = (mount: string | undefined) =>
    build.parts.some((p) => types(p.type)?.body.mounts.some((m) => m.id === mount && m.region === "behind-tray"));
  const b: Build = {
    ...build,
    connections: [],
    // What was fixed behind the tray stays out of this machine.
    parts: build.parts.filter((p) => !behind(p.mount) && !["hub", "usb-hub"].includes(types(p.type)?.kind ?? "")),
    accessories: build.accessories.filter((a) => !["hub", "usb-hub"].includes(types(a.type)?.kind ?? "")),
  };
  const made = await plan(b, own, { deadlineS: 20 });
  return { made, graph: buildGraph(made.build, own), shell: [...build.parts].flatMap((p) => own(p.type) ?? []).find((t) => t.kind === "case") };
}

describe.each(["fs-1041", "fs-1042", "fs-1046"])("%s in an open frame", (name) => {
  it("has no lead, fold, step or turn behind the tray, nothing about panels, glass or filters, and says why", async () => {
    const { made, graph } = await framed(name);
    const routes = routesOf(graph);
    expect(routes.routes.length).toBeGreaterThan(5);
    for (const r of routes.routes) {
      expect([r.lead, r.way?.stretches.map((s) => s.sheet).includes("behind") ?? false]).toEqual([r.lead, false]);
      expect([r.lead, r.fold?.sheet === "behind"]).toEqual([r.lead, false]);
    }
    const { steps, blocks, conflicts } = orderOf(graph);
    expect(conflicts).toEqual([]);
    expect(blocks).not.toContain("behind-up");
    expect(steps.filter((s) => ["route", "dress"].includes(s.kind) || ["open", "close"].includes(s.id)).map((s) => s.id)).toEqual([]);
    for (const s of steps)
      expect([s.id, `${s.title} ${s.detail} ${s.caution ?? ""}`]).toEqual([
        s.id,
        expect.not.stringMatching(/behind the tray|glass|filter|panel(?!,| block|1)/i),
      ]);
    expect(checkParts(graph).find((f) => f.rule === "no-room-behind")?.message).toContain("0 mm behind its tray");
    expect(made.connections.length).toBeGreaterThan(8);
  });
});

describe("an entry with places behind a tray that has no room there", () => {
  it("contradicts itself, and says where", () => {
    const { types, build } = demo("fs-1041");
    const shell = build.parts.flatMap((p) => types(p.type) ?? []).find((t) => t.kind === "case");
    if (!shell) throw new Error("a case");
    expect(contradictions({ ...shell, body: { ...shell.body, behindTrayMm: 0 } })).toContain(
      "Mount “hub plate” lies behind the tray, where there are 0 mm.",
    );
  });
});
