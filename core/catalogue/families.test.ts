import { describe, expect, it } from "vitest";
import { FAMILIES, family, mate, PRACTICE, startingCurrentA, usable } from ".";

const pinsOf = (id: string) => Object.fromEntries(family(id).pins.map((p) => [p.pin, p.signal]));

describe("pin-outs against the published ones (from memory)", () => {
  it("front panel, USB 2 and HD audio: Intel, Front Panel I/O Connectivity Design Guide", () => {
    expect(pinsOf("panel-block")).toMatchObject({
      1: "HDD LED +",
      2: "power LED +",
      3: "HDD LED -",
      4: "power LED -",
      6: "power switch",
      8: "power switch ground",
      7: "reset",
      5: "reset ground",
      10: "blank",
    });
    expect(family("panel-block").blank).toBe(10);
    expect(pinsOf("usb2")).toMatchObject({
      1: "VBUS",
      2: "VBUS",
      3: "D- port 1",
      4: "D- port 2",
      5: "D+ port 1",
      6: "D+ port 2",
      7: "ground",
      8: "ground",
      9: "blank",
    });
    expect(family("usb2").blank).toBe(9);
    expect(pinsOf("hd-audio")).toMatchObject({ 1: "port 1 left", 4: "presence", 7: "sense send", 8: "blank", 10: "sense 2 return" });
    expect(family("hd-audio").blank).toBe(8);
  });
  it("24-pin and CPU power: Intel, ATX power supply design guide", () => {
    const atx = family("atx-24").pins;
    const on = (signal: string) => atx.filter((p) => p.signal === signal).map((p) => p.pin);
    expect(on("+3.3 V")).toEqual([1, 2, 12, 13]);
    expect(on("+5 V")).toEqual([4, 6, 21, 22, 23]);
    expect(on("+12 V")).toEqual([10, 11]);
    expect(on("PS-ON")).toEqual([16]);
    expect(on("power good")).toEqual([8]);
    expect(on("+5 V standby")).toEqual([9]);
    expect(on("-12 V")).toEqual([14]);
    expect(on("ground")).toEqual([3, 5, 7, 15, 17, 18, 19, 24]);
    const wire = Object.fromEntries(atx.filter((p) => p.wire).map((p) => [p.signal, p.wire]));
    expect(wire).toMatchObject({
      "+12 V": "yellow",
      "+5 V": "red",
      "+3.3 V": "orange",
      ground: "black",
      "+5 V standby": "purple",
      "PS-ON": "green",
      "power good": "grey",
      "-12 V": "blue",
    });
    expect([1, 2, 3, 4].map((n) => pinsOf("cpu-8")[n])).toEqual(["ground", "ground", "ground", "ground"]);
    expect([5, 6, 7, 8].map((n) => pinsOf("cpu-8")[n])).toEqual(["+12 V", "+12 V", "+12 V", "+12 V"]);
  });
  it("graphics 8-pin puts 12 V where the CPU's 8-pin has ground: PCI-SIG, PCI Express CEM", () => {
    expect([1, 2, 3].map((n) => pinsOf("gfx-8")[n])).toEqual(["+12 V", "+12 V", "+12 V"]);
    expect([1, 2, 3].map((n) => pinsOf("cpu-8")[n])).toEqual(["ground", "ground", "ground"]);
  });
  it("fan: ground, 12 V, speed, control: Intel, 4-Wire PWM Controlled Fans 1.3", () => {
    expect(pinsOf("fan-4")).toEqual({ 1: "ground", 2: "+12 V", 3: "speed signal", 4: "control (PWM)" });
  });
  it("ratings: 75, 150 and 600 W graphics, 54 W SATA at 12 V, 132 W peripheral", () => {
    expect(["gfx-6", "gfx-8", "gfx-16", "pcie-slot", "sata-power", "peripheral-4", "cpu-8", "cpu-4"].map((f) => family(f).rating?.powerW)).toEqual([
      75,
      150,
      600,
      75,
      54,
      132,
      4 * 7 * 12,
      2 * 7 * 12,
    ]);
    expect(1.5 * 3 * 12).toBe(family("sata-power").rating?.powerW);
    expect(11 * 12).toBe(family("peripheral-4").rating?.powerW);
  });
  it("50 LEDs of 60 mA fill a 3 A header", () => {
    expect(Math.floor(PRACTICE.lightHeaderA / 0.06 + 1e-9)).toBe(50);
  });
  it("starting current is 2.2/1.5 of the steady one where none is given", () => {
    expect(startingCurrentA({ currentA: 1.5 })).toBeCloseTo(2.2, 9);
    expect(startingCurrentA({ currentA: 0.2, startCurrentA: 0.5 })).toBe(0.5);
  });
});

describe("the mating table", () => {
  it("kills 5 V lights on 12 V, leaves 12 V lights dark on 5 V", () => {
    expect(mate("light-5v", "light-12v").outcome).toBe("harm");
    expect(mate("light-12v", "light-5v").outcome).toBe("idle");
  });
  it("never mixes CPU and graphics 8-pin, in either direction", () => {
    for (const [a, b] of [
      ["cpu-4+4", "gfx-8"],
      ["gfx-6+2", "cpu-8"],
      ["cpu-8", "gfx-8"],
      ["gfx-8", "cpu-8"],
    ] as const)
      expect(mate(a, b).outcome).toBe("harm");
  });
  it("takes 3-wire fans on 4-pin headers and the reverse", () => {
    expect(usable(mate("fan-3", "fan-4")) && usable(mate("fan-4", "fan-3"))).toBe(true);
  });
  it("keys USB 2 off audio and a maker's plug off another's hub", () => {
    expect(mate("usb2", "hd-audio").outcome).toBe("keyed");
    expect(mate("light-maker", "light-maker", "a", "b").outcome).toBe("keyed");
    expect(mate("light-maker", "light-maker", "a", "a").outcome).toBe("fits");
  });
  it("calls a cable of another supply harmful", () => {
    expect(mate("supply-outlet", "supply-outlet", "M drive", "L drive").outcome).toBe("harm");
  });
  it("every family mates with itself, and says where it comes from", () => {
    for (const f of FAMILIES) {
      if (f.id === "panel-loose") continue;
      expect([f.id, mate(f.id, f.id, "k", "k").outcome]).toEqual([f.id, "fits"]);
      expect(f.source.length).toBeGreaterThan(3);
      const drawn = f.order.flat().filter((n): n is number => n !== null);
      expect(new Set(drawn).size).toBe(drawn.length);
    }
  });
});
