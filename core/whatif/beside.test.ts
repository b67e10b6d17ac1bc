import { describe, expect, it } from "vitest";
import { given, T } from "../../tests/fixtures/small";
import type { PartType } from "../catalogue";
import { PartType as Type } from "../catalogue";
import { checkParts } from "../checks";
import { alternatives, together, withTypes } from ".";

const entry = (json: object): PartType => Type.parse(json);
const sata = (n: number, part: string) =>
  Array.from({ length: n }, (_, i) => T.port(`${part}${i + 1}`, "sata-data", "out", "drive-data", { at: { xMm: 200, yMm: 10 * i } }));
const board = T.board("b", sata(1, "S"));
const drive = (id: string, sizeGb: number) => ({ ...T.drive(id), ratings: { sizeGb, peakW: 8 } });
const given2 = () =>
  given(
    [T.case("c", [T.mount("m1", "bottom", 100, 300), T.mount("m2", "bottom", 160, 300)]), board, drive("d", 4000)],
    [
      { id: "case", type: "c" },
      { id: "board", type: "b" },
      { id: "drive-1", type: "d", mount: "m1" },
      { id: "drive-2", type: "d", mount: "m2" },
    ],
  );

describe("a drive more than there are ports", () => {
  const { build, types, graph } = given2();
  it("is a stop by hand: 2 drives, 1 port", () => {
    expect(checkParts(graph).find((f) => f.rule === "drive-ports")).toMatchObject({ severity: "stop", message: "2 SATA drives, 1 SATA port." });
  });
  it("a card of the shelf that has ports is offered beside it, and does what it says; one without is not", () => {
    const shelf = [
      entry({ id: "sata-card", kind: "card", maker: "", name: "SATA card", ports: sata(4, "P") }),
      entry({ id: "dull-card", kind: "card", maker: "", name: "dull card" }),
    ];
    const list = alternatives(build, types, "drive-2", shelf);
    expect(list.map((a) => [a.type.id, a.helps, a.changes])).toEqual([["sata-card", true, [{ part: "card-1", type: shelf[0], adds: true }]]]);
    const other = withTypes(build, types, list[0]?.changes ?? []);
    expect(other.build.parts.map((p) => p.id)).toEqual(["case", "board", "drive-1", "drive-2", "card-1"]);
    expect(list[0]?.comparison.gone.map((f) => f.rule)).toContain("drive-ports");
  });
});

describe("what belongs together", () => {
  const ram = (id: string, sizeGb: number) => ({ id, kind: "memory", maker: "", name: id, ratings: { sizeGb } });
  const { build, types } = given(
    [ram("r16", 16), T.fan("f", 0.2)],
    [
      { id: "mem-1", type: "r16" },
      { id: "mem-2", type: "r16" },
      { id: "rad-1", type: "f", zone: "radiator" },
      { id: "rad-2", type: "f", zone: "radiator" },
      { id: "fan-1", type: "f" },
    ],
  );
  it("modules are changed together, and fans of one radiator; a case fan is changed by itself", () => {
    expect(together(build, types, "mem-2")).toEqual(["mem-1", "mem-2"]);
    expect(together(build, types, "rad-1")).toEqual(["rad-1", "rad-2"]);
    expect(together(build, types, "fan-1")).toEqual(["fan-1"]);
  });
  it("the nearest in class comes first, whatever comes before it by name", () => {
    const shelf = [ram("a4", 4), ram("b64", 64), ram("c32", 32)].map(entry);
    const list = alternatives(build, types, "mem-1", shelf);
    expect(list.map((a) => a.type.id)).toEqual(["c32", "a4", "b64"]);
    expect(list.every((a) => a.changes.length === 2)).toBe(true);
  });
});
