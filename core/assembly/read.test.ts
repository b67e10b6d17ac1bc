import { describe, expect, it } from "vitest";
import { processorMs } from "../../tests/cases";
import { DEMO, demo, shelf } from "../../tests/fixtures/demo";
import { T } from "../../tests/fixtures/small";
import { readBuild, readBuildText } from ".";

const base = () =>
  ({
    format: "imbra-build",
    version: 1,
    name: "x",
    partTypes: [T.board("b", [T.header("H1", 10)]), T.fan("f", 0.2)],
    parts: [
      { id: "board", type: "b" },
      { id: "fan", type: "f" },
    ],
  }) as { partTypes: Record<string, unknown>[]; parts: Record<string, unknown>[]; [k: string]: unknown };

const faults = (data: unknown) => {
  const r = readBuild(data, []);
  return r.ok ? [] : r.faults;
};

describe("bad build files get a sentence that names the place", () => {
  it("not JSON, with the line", () => {
    const r = readBuildText('{\n "format": "imbra-build",\n "version": 1,,\n}', []);
    expect(r.ok ? [] : r.faults).toEqual([expect.stringMatching(/^line 3: this is not JSON/)]);
    const empty = readBuildText("  ", []);
    expect(empty.ok ? [] : empty.faults).toEqual([expect.stringContaining("empty")]);
  });
  it("a missing field", () => {
    const b = base();
    delete b.parts[1]?.type;
    expect(faults(b)).toEqual(["parts[1].type: this field is missing."]);
  });
  it("an unknown family", () => {
    const b = base();
    const ports = b.partTypes[0]?.ports as { family: string }[];
    if (ports[0]) ports[0].family = "fan-9";
    expect(faults(b)[0]).toBe('partTypes[0].ports[0].family: there is no connector family "fan-9". docs/formats.md lists the families.');
  });
  it("a repeated id", () => {
    const b = base();
    b.parts.push({ id: "fan", type: "f" });
    expect(faults(b)).toEqual(['parts[2].id: "fan" is already the id of parts[1].id. Give it another.']);
  });
  it("a reference to nothing: type, lead, port, mount, fedBy", () => {
    expect(faults({ ...base(), parts: [{ id: "fan", type: "ghost" }] })[0]).toContain(
      'parts[0].type: neither this file nor the shelf has a part type "ghost"',
    );
    expect(faults({ ...base(), connections: [{ lead: "fan:nope", port: "board:H9" }] })).toEqual([
      'connections[0].lead: there is no lead "fan:nope".',
      'connections[0].port: there is no port "board:H9".',
    ]);
    const c = {
      ...base(),
      partTypes: [...base().partTypes, T.case("c", [T.mount("m1", "front", 1, 1)])],
      parts: [
        { id: "case", type: "c" },
        { id: "fan", type: "f", mount: "m2" },
      ],
    };
    // A place that another case had is said by a rule, so that what a job writes is read back.
    expect(readBuild(c, []).ok).toBe(true);
    const s = base();
    (s.partTypes[0]?.ports as Record<string, unknown>[])[0] = { ...T.header("H1", 10), fedBy: "nobody" };
    expect(faults(s)[0]).toContain('partTypes[0].ports[0].fedBy: this part has no port or lead "nobody"');
  });
  it("a negative limit", () => {
    const b = base();
    b.partTypes[0] = T.board("b", [T.header("H1", 10, { limit: { currentA: -1 } })]);
    expect(faults(b)[0]).toBe("partTypes[0].ports[0].limit.currentA: -1 is too small; at least 0.");
  });
  it("an unknown field", () => {
    expect(faults({ ...base(), extra: 1 })[0]).toContain('unknown field "extra"');
  });
  it("one plug in two ports, two plugs in one port", () => {
    const b = base();
    b.partTypes[0] = T.board("b", [T.header("H1", 10), T.header("H2", 20)]);
    expect(
      faults({
        ...b,
        connections: [
          { lead: "fan:lead", port: "board:H1" },
          { lead: "fan:lead", port: "board:H2" },
        ],
      })[0],
    ).toContain("already connected by connections[0]");
    b.parts.push({ id: "fan2", type: "f" });
    expect(
      faults({
        ...b,
        connections: [
          { lead: "fan:lead", port: "board:H1" },
          { lead: "fan2:lead", port: "board:H1" },
        ],
      })[0],
    ).toContain("already taken by connections[0]");
  });
  it("10,000 leads: one sentence, fast", () => {
    const b = base();
    b.partTypes[1] = { ...T.fan("f", 0.1), leads: Array.from({ length: 40 }, (_, i) => T.lead(`l${i}`, "fan-4", "case-fan", 100)) };
    b.parts = [{ id: "board", type: "b" }, ...Array.from({ length: 190 }, (_, i) => ({ id: `p${i}`, type: "f" }))];
    const started = processorMs();
    expect(faults(b)).toEqual([expect.stringContaining("7600 leads in all; a build may have 600")]);
    const many = { ...base(), parts: Array.from({ length: 10_000 }, (_, i) => ({ id: `p${i}`, type: "f" })) };
    expect(faults(many)).toEqual(["parts: 10000 entries. No list of a build is longer than 1500."]);
    expect(faults({ ...base(), parts: many.parts.slice(0, 1000) })[0]).toContain("parts: this is too long; at most 200");
    expect(processorMs() - started).toBeLessThan(3000);
  });
  it("a value that is none of a few says which there are", () => {
    const b = base();
    const [first] = (b.partTypes[0] as { ports?: object[] }).ports ?? [];
    Object.assign(first ?? {}, { turned: "__proto__" });
    expect(faults(b)).toEqual(["partTypes[0].ports[0].turned: it should be one of 0|90|180|270."]);
  });
  it("anything at all: never throws, never more than 41 sentences", () => {
    for (const junk of [null, 1, "x", [], {}, { format: "imbra-build" }, { ...base(), parts: Array.from({ length: 150 }, () => ({})) }]) {
      const f = faults(junk);
      expect(f.length).toBeGreaterThan(0);
      expect(f.length).toBeLessThanOrEqual(41);
      for (const s of f) expect(s).toMatch(/^[^:]+: .+\.$/);
    }
  });
});

describe("good files", () => {
  it("every example reads against the shelf", () => {
    for (const name of DEMO) expect(demo(name).graph.parts.size).toBeGreaterThan(10);
  });
  it("a build reads back as itself", () => {
    for (const name of DEMO) {
      const { build } = demo(name);
      const again = readBuildText(JSON.stringify(build), shelf);
      expect(again.ok && again.build).toEqual(build);
    }
  });
});
