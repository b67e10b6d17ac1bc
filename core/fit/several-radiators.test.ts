import { describe, expect, it } from "vitest";
import { shelf } from "../../tests/fixtures/demo";
import { airOf } from "../air";
import { Build, buildGraph, type TypeLookup } from "../assembly";
import { PartType } from "../catalogue";
import { checkAll, checkParts } from "../checks";
import { orderOf } from "../order";
import { plan } from "../plan";
import { bodies } from "../space";
import { radiatorSeats } from ".";

/** A tall case with a place on the floor, too. */
const tall = PartType.parse(
  (() => {
    const t = structuredClone(shelf.find((x) => x.id === "brindlecote-observatory"));
    t?.body.radiatorPlaces.push({
      id: "floor",
      label: "floor",
      region: "bottom",
      mounts: ["floor-1", "floor-2", "floor-3"],
      fanMm: [120],
      maxLengthMm: 400,
      maxThicknessMm: 80,
    });
    return t;
  })(),
);
const types: TypeLookup = (id) => (id === tall.id ? tall : shelf.find((t) => t.id === id));

const fans = (at: string, n: number, from = 1) =>
  Array.from({ length: n }, (_, i) => ({ id: `${at}-fan-${i + 1}`, type: "whirrow-120-rad", mount: `${at}-${i + from}`, from: "client" as const }));

const machine = (change: (b: Build) => Build = (b) => b): Build =>
  change(
    Build.parse({
      format: "imbra-build",
      version: 1,
      name: "Three radiators",
      parts: [
        { id: "case", type: tall.id, from: "client" },
        { id: "board", type: "tarnbrook-heron-t60", from: "client" },
        { id: "cpu", type: "quillane-12", from: "client" },
        { id: "mem-1", type: "lathewell-16-6000", from: "client" },
        { id: "supply", type: "mossgate-1200m", from: "client" },
        { id: "card", type: "halcyra-340", from: "client" },
        { id: "cpu-cooler", type: "coldwharf-360", label: "CPU cooler", mount: "top", from: "client" },
        { id: "card-cooler", type: "coldwharf-360-thick", label: "Card cooler", mount: "front", cools: "card", from: "client" },
        { id: "loop-radiator", type: "coldwharf-360", label: "Floor radiator", mount: "floor", cools: "loop", from: "client" },
        ...fans("top", 3),
        ...fans("floor", 3),
      ],
    }),
  );
const graphOf = (b: Build) => buildGraph(b, types);

describe("several radiators", () => {
  it("each hang at a place of their own, with the fans that are there, marked or not, and are drawn there", () => {
    const g = graphOf(machine());
    const seats = radiatorSeats(g);
    expect(seats.map((s) => [s.cooler.id, s.place?.id, s.fans.map((f) => f.id)])).toEqual([
      ["cpu-cooler", "top", ["top-fan-1", "top-fan-2", "top-fan-3"]],
      ["card-cooler", "front", []],
      ["loop-radiator", "floor", ["floor-fan-1", "floor-fan-2", "floor-fan-3"]],
    ]);
    const rects = bodies(g).filter((b) => b.kind === "radiator");
    expect(rects).toHaveLength(3);
    expect(rects.map((r) => (r.rect.widthMm > r.rect.heightMm ? "level" : "upright"))).toEqual(["level", "upright", "level"]);
    expect(new Set(rects.map((r) => Math.round(r.rect.yMm))).size).toBe(3);
    // What blows through a radiator moves less air.
    expect(airOf(g).fans.filter((f) => f.through.includes("radiator"))).toHaveLength(6);
  });
  it("say that no fan blows through where none does, and nowhere else", () => {
    const said = checkParts(graphOf(machine())).filter((f) => f.rule === "cooling-sold");
    expect(said.map((f) => f.ends)).toEqual([["card-cooler"]]);
    expect(said[0]?.message).toContain("No fan blows through the radiator of Card cooler");
  });
  it("have one pump head on the CPU, one block on the card, and a loop that is filled before power", async () => {
    const b = machine();
    const made = await plan(b, types, { deadlineS: 10 });
    const g = buildGraph(made.build, types);
    expect(
      bodies(g)
        .filter((x) => x.kind === "pump")
        .map((x) => x.id),
    ).toEqual(["cpu-cooler"]);
    const { steps, conflicts } = orderOf(g);
    expect(conflicts).toEqual([]);
    const at = (id: string) => steps.findIndex((s) => s.id === id);
    expect(steps.filter((s) => s.id.startsWith("head:")).map((s) => s.title)).toEqual([
      expect.stringContaining("block of Card cooler"),
      expect.stringContaining("pump head of CPU cooler on the CPU"),
    ]);
    expect(at("head:card-cooler")).toBeLessThan(at("plug:card:seat"));
    expect(at("mount:loop-radiator")).toBeLessThan(at("fill-loop"));
    expect(at("fill-loop")).toBeLessThan(at("first-start"));
    expect(steps.find((s) => s.id === "fill-loop")?.caution).toContain("leaks");
    for (const c of ["cpu-cooler", "card-cooler", "loop-radiator"]) expect(at(`mount:${c}`)).toBeGreaterThan(-1);
    expect(checkAll(g).filter((f) => f.severity === "stop" && f.rule === "one-place")).toEqual([]);
  });
  it("fans of 140 beside a radiator for 120 are fans of the case; marked as on it they are a finding", () => {
    const other = (zone?: string) =>
      machine((b) => ({
        ...b,
        parts: [...b.parts, { id: "front-fan", type: "whirrow-140", mount: "front-1", from: "client", ...(zone ? { zone } : {}) }],
      }));
    const about = (b: Build) => checkParts(graphOf(b)).filter((f) => f.rule === "radiator-place" && f.severity === "stop");
    expect(about(other())).toEqual([]);
    expect(about(other("card-cooler")).map((f) => f.ends)).toEqual([["front-fan"]]);
  });
});

describe("a radiator of which the case has two places on the same mounts", () => {
  it("hangs at the one that its cooler names, before and after its fans are there", () => {
    const twice = PartType.parse({
      ...tall,
      body: {
        ...tall.body,
        radiatorPlaces: [
          ...tall.body.radiatorPlaces,
          { ...tall.body.radiatorPlaces.find((p) => p.id === "top"), id: "top-deep", label: "top, deep" },
        ],
      },
    });
    const own: TypeLookup = (id) => (id === twice.id ? twice : types(id));
    const b = machine((x) => ({ ...x, parts: x.parts.map((p) => (p.id === "cpu-cooler" ? { ...p, mount: "top-deep" } : p)) }));
    const placeIn = (x: Build) => radiatorSeats(buildGraph(x, own)).find((s) => s.cooler.id === "cpu-cooler")?.place?.id;
    expect(placeIn(b)).toBe("top-deep");
    expect(placeIn({ ...b, parts: b.parts.filter((p) => !p.id.startsWith("top-fan")) })).toBe("top-deep");
  });
});
