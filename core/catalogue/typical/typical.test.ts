import { describe, expect, it } from "vitest";
import { readBuild } from "../../assembly";
import { assumed, figuresOf, isProvisional, type PartKind, PartType, provisional, rangeOf, TYPICAL_KINDS, withFigure } from "..";
import { contradictions } from "../contradictions";

const FORMS: Partial<Record<PartKind, readonly Record<string, string | number | boolean>[]>> = {
  board: [{}, { form: "E-ATX" }, { form: "microATX" }, { form: "Mini-ITX" }, { form: "FlexATX" }],
  case: [{}, { form: "E-ATX" }, { form: "microATX" }, { form: "Mini-ITX" }],
  cooler: [{}, { radiatorMm: 280 }, { radiatorMm: 360 }, { heightMm: 47 }],
  drive: [{}, { form: "2.5" }, { form: "3.5" }],
  card: [{}, { watts: 75 }, { watts: 320 }, { graphics: false }],
  supply: [{}, { watts: 450 }, { watts: 1200 }, { form: "SFX" }],
};
const each = TYPICAL_KINDS.flatMap((kind) => (FORMS[kind] ?? [{}]).map((said) => [kind, said] as const));

describe("a part as such parts usually are", () => {
  it.each(each)("%s %j: is a sound part type, says what is assumed, and so is every end of every range", (kind, said) => {
    const t = provisional(kind, { id: "new-x", name: "X" }, said, {});
    expect(isProvisional(t)).toBe(true);
    const sound = (x: PartType) => {
      expect(PartType.parse(JSON.parse(JSON.stringify(x)))).toEqual(x);
      const read = readBuild({ format: "imbra-build", version: 1, name: "x", partTypes: [x], parts: [{ id: "p", type: x.id }] }, []);
      expect(read.ok ? [] : read.faults).toEqual([]);
      expect(contradictions(x)).toEqual([]);
    };
    sound(t);
    for (const [id, v] of Object.entries(said)) expect([id, t.figures?.[id]]).toEqual([id, { value: v, is: "said" }]);
    for (const f of assumed(t)) {
      expect(t.figures?.[f.id]?.from ?? "").not.toBe("");
      expect(f.ask("X")).toMatch(/\?$/);
      for (const v of rangeOf(t, f)) {
        expect(v).not.toBe(t.figures?.[f.id]?.value);
        sound(withFigure(t, f.id, v));
      }
    }
    // What somebody confirms is assumed no longer; all else stays as it was.
    const first = assumed(t)[0];
    if (!first) return;
    const value = t.figures?.[first.id]?.value ?? 0;
    const sure = withFigure(t, first.id, value, "confirmed", { by: "somebody" });
    expect(assumed(sure).map((f) => f.id)).toEqual(
      assumed(t)
        .slice(1)
        .map((f) => f.id),
    );
    expect({ ...sure, figures: {} }).toEqual({ ...t, figures: {} });
  });
  it("every figure of a kind has a value", () => {
    for (const kind of TYPICAL_KINDS) {
      const t = provisional(kind, { id: "new-x", name: "X" }, {}, {});
      expect(Object.keys(t.figures ?? {}).sort()).toEqual(
        figuresOf(kind)
          .map((f) => f.id)
          .sort(),
      );
    }
  });
});
