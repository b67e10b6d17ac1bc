import { describe, expect, it } from "vitest";
import { shelf } from "../../tests/fixtures/demo";
import { draftOf, FIELDS, get, judgeDraft, put } from "./draft";

describe("a part type being edited", () => {
  it("every entry of the shelf goes through the editor unchanged and valid", () => {
    for (const t of shelf) {
      const j = judgeDraft(draftOf(t));
      expect([t.id, j.faults]).toEqual([t.id, []]);
      expect(j.type).toEqual(t);
    }
  });
  it("puts, makes what is missing, takes away, and leaves the original alone", () => {
    const d = { a: { b: 1 }, list: [1, 2, 3] };
    expect(put(d, ["a", "c", "d"], 5)).toEqual({ a: { b: 1, c: { d: 5 } }, list: [1, 2, 3] });
    expect(put(d, ["list", 1], undefined)).toEqual({ a: { b: 1 }, list: [1, 3] });
    expect(put(d, ["a", "b"], undefined)).toEqual({ a: {}, list: [1, 2, 3] });
    expect(d).toEqual({ a: { b: 1 }, list: [1, 2, 3] });
    expect(get(d, ["list", 2])).toBe(3);
    expect(get(d, ["no", "way"])).toBeUndefined();
  });
  it("a negative length, an unknown family and an empty name are sentences that name the place", () => {
    const board = draftOf(shelf.find((t) => t.kind === "board") as (typeof shelf)[number]);
    expect(judgeDraft(put(board, ["body", "widthMm"], -3) as never).faults).toEqual(["body.widthMm: -3 is too small; at least 0."]);
    expect(judgeDraft(put(board, ["ports", 0, "family"], "fan-9") as never).faults[0]).toContain('no connector family "fan-9"');
    expect(judgeDraft(put(board, ["name"], "") as never).faults[0]).toMatch(/^name: /);
  });
  it("the form's fields are fields of the schema: a number put there is kept", () => {
    for (const [kind, fields] of Object.entries(FIELDS)) {
      const t = shelf.find((x) => x.kind === kind);
      for (const f of fields ?? []) {
        const j = judgeDraft(put(draftOf(t as (typeof shelf)[number]), f.path, 3) as never);
        expect([kind, f.path, j.faults]).toEqual([kind, f.path, []]);
        expect(get(j.type as never, f.path)).toBe(3);
      }
    }
  });
});
