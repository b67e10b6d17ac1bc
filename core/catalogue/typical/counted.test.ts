import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { contradictions, counted, figureOfPort, figuresOf, groupsOf, manualLines, TYPICAL_KINDS, withFigure } from "..";

const head = { id: "own-board", maker: "Stellan", name: "Gorge B7", revision: 1 };

describe("a part as somebody counts it", () => {
  it("has as many of each as were counted, confirmed by whom; the rest is as usual and says by which rule", () => {
    fc.assert(
      fc.property(
        fc.record({ caseFans: fc.nat(6), usb2: fc.nat(4), sata: fc.nat(8), led5: fc.nat(4), m2: fc.integer({ min: 0, max: 4 }), pump: fc.boolean() }),
        (given) => {
          const t = counted("board", head, given, { by: "Mirel Quist", at: "2026-12-01" });
          const of = (re: RegExp) => t.ports.filter((p) => re.test(p.id)).length;
          expect([of(/^SYS_FAN/), of(/^USB2_/), of(/^SATA_/), of(/^LED5V_/), of(/^M2_/), of(/^PUMP/)]).toEqual([
            given.caseFans,
            given.usb2,
            given.sata,
            given.led5,
            given.m2,
            given.pump ? 1 : 0,
          ]);
          for (const [id, f] of Object.entries(t.figures ?? {}))
            expect(f, id).toMatchObject(id in given ? { is: "confirmed", by: "Mirel Quist" } : { is: "typical", from: expect.any(String) });
        },
      ),
      { numRuns: 60 },
    );
  });
  it("keeps names and places that somebody gave, also when another figure is corrected", () => {
    const t = counted("board", { ...head, placed: { SYS_FAN2: { label: "CHA_FAN2", xMm: 200 } } }, { caseFans: 3 });
    const port = (x: typeof t) => x.ports.find((p) => p.id === "SYS_FAN2");
    expect(port(t)).toMatchObject({ label: "CHA_FAN2", at: { xMm: 200 } });
    expect(port(withFigure(t, "sata", 6, "confirmed"))).toMatchObject({ label: "CHA_FAN2", at: { xMm: 200 } });
  });
  it("has M.2 slots by lanes and by what they take, kits by socket, a cover over the supply, and the board so far from the top", () => {
    const m2 = counted("board", head, { m2: 4, m2Two: 1, m2Sata: 2 }).ports.filter((p) => p.id.startsWith("M2_"));
    expect(m2.map((p) => [p.link?.lanes, p.protocols?.includes("sata")])).toEqual([
      [4, false],
      [4, false],
      [4, true],
      [2, true],
    ]);
    const cooler = counted("cooler", { ...head, id: "c" }, { sockets: "S1, S2 / S1" });
    expect(cooler.body.mountings?.map((m) => m.socket)).toEqual(["S1", "S2"]);
    expect(counted("cooler", { ...head, id: "c" }, {}).body.mountings).toBeUndefined();
    const [low, high] = [45, 95].map((overMm) => counted("case", { ...head, id: "k" }, { overMm, shroud: true }));
    expect([low?.body.boardAt?.yMm, high?.body.boardAt?.yMm]).toEqual([45, 95]);
    expect((high?.body.heightMm ?? 0) - (low?.body.heightMm ?? 0)).toBe(50);
    expect([low, high].map((k) => (k ? contradictions(k) : ["none made"]))).toEqual([[], []]);
    expect(low?.body.bodies?.map((b) => b.kind)).toEqual(["cover"]);
  });
  it("from one alike takes over what that one has, as an assumption that names it", () => {
    const alike = counted("board", head, { caseFans: 7, form: "microATX" });
    const t = counted("board", { ...head, id: "b", name: "Gorge B8" }, { sata: 2 }, { alike });
    expect(t.figures?.caseFans).toMatchObject({ value: 7, is: "typical", from: "as Gorge B7 has it" });
    expect(t.figures?.sata).toMatchObject({ value: 2, is: "confirmed" });
    expect(t.body.formFactor).toBe("microATX");
  });
  it("every figure of a kind stands under one heading, and what is usual contradicts nothing", () => {
    for (const kind of TYPICAL_KINDS) {
      expect(
        groupsOf(kind)
          .flatMap((g) => g.figures.map((f) => f.id))
          .sort(),
      ).toEqual(
        figuresOf(kind)
          .map((f) => f.id)
          .sort(),
      );
      expect(contradictions(counted(kind, { ...head, id: kind }, {})), kind).toEqual([]);
    }
  });
});

describe("a manual's own list", () => {
  it("of a board is understood line by line; names are those printed; what is no header stays in view", () => {
    const r = manualLines(
      "board",
      `1 x 24-pin EATX main power connector
2 x 8-pin +12V power connectors
1 x CPU_FAN header (4-pin)
1 x CPU_OPT header
1 x AIO_PUMP header
CHA_FAN1/2/3: 4-pin chassis fan headers
4 x SATA 6Gb/s ports (SATA6G_1~4)
3 x M.2 slots
1 x USB 3.2 Gen 1 header (U32G1_12)
1 x USB Type-C front panel header
2 x USB 2.0 headers (USB_12, USB_34)
2 x Addressable Gen 2 headers
1 x 4-pin RGB header
1 x F_PANEL header
BIOS battery, lithium`,
    );
    expect(r.values).toEqual({ cpuPlugs: 2, cpuOpt: true, pump: true, caseFans: 3, sata: 4, m2: 3, usb3: 1, usbc: true, usb2: 2, led5: 2, led12: 1 });
    expect(r.names).toMatchObject({
      CPU_FAN: "CPU_FAN",
      PUMP1: "AIO_PUMP",
      SYS_FAN1: "CHA_FAN1",
      SYS_FAN3: "CHA_FAN3",
      SATA_4: "SATA6G_4",
      USB2_2: "USB_34",
      USB3_1: "U32G1_12",
      PANEL1: "F_PANEL",
    });
    expect(r.lines.filter((l) => !l.figure).map((l) => l.text)).toEqual(["BIOS battery, lithium"]);
  });
  it("in German, of a supply and of a case", () => {
    expect(manualLines("board", "3 x Gehäuselüfter (4-polig)\n2 x USB 2.0\n1 x adressierbare LED-Leiste").values).toEqual({
      caseFans: 3,
      usb2: 2,
      led5: 1,
    });
    expect(manualLines("supply", "1 x 24-pin\n2 x EPS 4+4\n3 x PCIe 6+2\n1 x 12V-2x6\n4 x SATA").values).toEqual({ cpu: 2, gfx: 3, g16: 1, sata: 4 });
    expect(manualLines("case", "Max. GPU length 365 mm\nCPU cooler height: 170 mm\nFront: 3 x 120 mm\nTop 2 x 140").values).toMatchObject({
      cardMm: 365,
      coolerMm: 170,
    });
  });
  it("of three thousand lines or another script stops nothing", () => {
    expect(manualLines("board", "x\n".repeat(3000)).lines.length).toBeLessThanOrEqual(200);
    expect(manualLines("board", "ヘッダー × 3\n风扇").values).toEqual({});
  });
  it("twice the same text says twice as much, and an empty one nothing", () => {
    expect(manualLines("board", "").lines).toEqual([]);
    expect(manualLines("board", "2 x USB 2.0 headers\n2 x USB 2.0 headers").values.usb2).toBe(4);
  });
});

describe("a port of a counted part", () => {
  it("is known by what counts it: one fewer counted, and it is the one that is gone", () => {
    const t = counted("board", head, { caseFans: 4, usb2: 2, sata: 4, led5: 2, m2: 3, usb3: 2 });
    for (const p of t.ports) {
      const at = figureOfPort("board", p.id);
      if (!at) continue;
      const value = t.figures?.[at.figure]?.value;
      const without = withFigure(t, at.figure, typeof value === "boolean" ? false : at.index, "confirmed");
      expect(
        without.ports.some((x) => x.id === p.id),
        p.id,
      ).toBe(false);
    }
    expect(t.ports.filter((p) => figureOfPort("board", p.id)).length).toBeGreaterThan(15);
  });
});
