import { describe, expect, it } from "vitest";
import { demo } from "../../tests/fixtures/demo";
import type { PartType } from "../catalogue";
import { checkAll } from "../checks";
import { powerOn } from "../machine";
import { plan } from "../plan";
import { buildGraph } from "./graph";
import type { Build } from "./schema";

const { build, types } = demo("fs-1041");
const first = build.parts.find((p) => types(p.type)?.kind === "supply");
const found = types(first?.type ?? "");
if (!first || !found) throw new Error("a supply");
const own: PartType = found;
const owner = first.id;

/** The same supply as another maker might make it: its outlets are called the same plain words. */
const like = (id: string, change: Partial<PartType>): PartType => ({ ...own, id, ...change });
const lookUp = (more: readonly PartType[]) => (id: string) => more.find((t) => t.id === id) ?? types(id);

/** A second supply that is there only for its cables, and one root of them in the first one's outlet, by hand. */
function crossed(other: PartType): { build: Build; types: typeof types } {
  const root = own.cables.find((c) => c.outlets.length === 1);
  const outlet = own.ports.find((p) => p.role === "outlet" && p.key === root?.outlets[0]);
  return {
    build: {
      ...build,
      parts: [...build.parts, { id: "spare", type: other.id, from: "client" }],
      connections: [{ lead: `spare/${root?.id}/1:root-1`, port: `${owner}:${outlet?.id}`, state: "plugged" }],
    },
    types: lookUp([other]),
  };
}
const said = (other: PartType) => {
  const { build: b, types: t } = crossed(other);
  const graph = buildGraph(b, t);
  return { findings: checkAll(graph).filter((f) => f.rule === "supply-system"), press: powerOn(graph).verdict };
};

describe("a cable that came with another supply", () => {
  it("is foreign where its maker is another, whatever both call their outlets", () => {
    const r = said(like("other-maker", { maker: "Quarrybank" }));
    expect(r.findings.map((f) => f.severity)).toEqual(["stop"]);
    expect(r.findings[0]?.message).toMatch(/did not come with .+ Do not press\./);
    expect(r.press).toMatch(/^Do not press/);
  });
  it("is foreign where nobody names the system of either, of the same maker and the same type too", () => {
    const { outletSystem: _, ...unnamed } = own;
    expect(said(like("no-system", { outletSystem: undefined })).findings).toHaveLength(1);
    const both = like("no-system", { outletSystem: undefined });
    const { build: b } = crossed(both);
    const graph = buildGraph(b, (id) => (id === both.id ? both : id === own.id ? { ...unnamed } : types(id)));
    expect(checkAll(graph).filter((f) => f.rule === "supply-system")).toHaveLength(1);
  });
  it("is foreign where the system is another of the same maker's", () => {
    expect(said(like("other-system", { outletSystem: "Z" })).findings).toHaveLength(1);
  });
  it("belongs where maker and system are named and equal", () => {
    expect(said(like("sister", {})).findings).toEqual([]);
  });
  it("is never planned; a supply's own bag is, whatever its outlets are called and though nobody names its system", async () => {
    const plain = like("plain", { maker: "", outletSystem: undefined });
    const foreign = like("foreign", { maker: "Quarrybank" });
    const b: Build = {
      ...build,
      connections: [],
      parts: [...build.parts.map((p) => (p.id === first.id ? { ...p, type: plain.id } : p)), { id: "spare", type: foreign.id, from: "client" }],
    };
    const made = await plan(b, lookUp([plain, foreign]), { deadlineS: 10 });
    const roots = made.connections.filter((c) => /:root-\d$/.test(c.lead));
    expect(roots.length).toBeGreaterThan(2);
    for (const c of roots) expect(c.lead.split("/")[0]).toBe(c.port.split(":")[0]);
    expect(checkAll(buildGraph(made.build, lookUp([plain, foreign]))).filter((f) => f.rule === "supply-system")).toEqual([]);
  });
});
