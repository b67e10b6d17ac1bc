import { z } from "zod";
import { Amount, FamilyId, Id, Label, Length, Point } from "./values";

/** PCI Express lanes of a slot or a card. */
const Lanes = z.union([z.literal(1), z.literal(2), z.literal(4), z.literal(8), z.literal(16)]);

/** How much it matters that this end is connected. */
export const Need = z.enum(["mandatory", "wanted", "optional"]);
export type Need = z.infer<typeof Need>;

/** How a fan or pump is slowed down: by PWM on the fourth wire, by its voltage, or not at all. */
export const Control = z.enum(["pwm", "voltage", "both", "none"]);

/** What a load takes. `startCurrentA` defaults to 2.2/1.5 of the steady current for fans and pumps. */
export const Load = z.object({
  currentA: Amount.default(0),
  startCurrentA: Amount.optional(),
  powerW: Amount.optional(),
  leds: z.number().int().min(0).max(5000).optional(),
});
export type Load = z.infer<typeof Load>;

/** How the sense pins S0 and S1 of a 16-pin plug are wired. */
export const SENSE = ["gnd gnd", "open gnd", "gnd open", "tied", "open open"] as const;

/** What a port, hub or cable can give. Left out: no limit is known, and the practice value of the family counts. */
export const Limit = z.object({
  currentA: Amount.optional(),
  startCurrentA: Amount.optional(),
  powerW: Amount.optional(),
  leds: z.number().int().min(0).max(5000).optional(),
  sense: z.enum(SENSE).optional().describe("16-pin plugs: sense pins S0 and S1, which say how much the card may draw"),
});
export type Limit = z.infer<typeof Limit>;

export const PORT_ROLES = [
  "board-power",
  "cpu-power",
  "graphics-power",
  "device-power",
  "cpu-fan",
  "cpu-optional-fan",
  "pump",
  "case-fan",
  "light",
  "panel",
  "audio",
  "usb",
  "drive-data",
  "memory",
  "cpu",
  "expansion",
  "outlet",
] as const;

export const Port = z.strictObject({
  id: Id,
  label: Label.describe("as printed on the part"),
  family: FamilyId,
  key: Label.optional().describe("for families with their own key: socket, memory type, kind of outlet, maker"),
  flow: z.enum(["out", "in"]).describe("out: gives power or signal; in: takes it"),
  role: z.enum(PORT_ROLES),
  at: Point.default({ xMm: 0, yMm: 0 }).describe("centre, from the part's own top left corner"),
  turned: z.union([z.literal(0), z.literal(90), z.literal(180), z.literal(270)]).default(0),
  places: z.number().int().min(1).max(10).optional(),
  limit: Limit.default({}),
  load: Load.optional().describe("what the part draws through an `in` port"),
  need: Need.default("wanted"),
  control: Control.optional().describe("what a fan port can do"),
  reportsSpeed: z.boolean().optional(),
  fedBy: Id.optional().describe("port or lead of the same part from which the current comes"),
  controlledBy: Id.optional().describe("lead of the same part from which the control signal comes"),
  speedTo: Id.optional().describe("lead of the same part on which this port's speed signal goes on"),
  displaces: z.array(Id).max(8).default([]).describe("ports that are switched off while this one is filled"),
  displacesWhen: z
    .array(z.strictObject({ protocol: z.enum(["nvme", "sata"]), ports: z.array(Id).min(1).max(8) }))
    .max(4)
    .optional()
    .describe("M.2 slots that switch off other ports with a SATA drive than with an NVMe drive"),
  protocols: z.array(z.enum(["nvme", "sata"])).optional(),
  link: z
    .strictObject({ generation: z.number().int().min(1).max(5), lanes: Lanes })
    .optional()
    .describe("M.2 and expansion slots: PCI Express generation and lanes, as printed in the board's table"),
  sharesLanes: z
    .array(z.strictObject({ with: Id, lanes: z.number().int().min(0).max(16) }))
    .max(8)
    .optional()
    .describe("slots: while that port of the same part is filled, this one has so many lanes; 0: it is switched off"),
  arrayCapable: z.boolean().optional().describe("SATA ports: drives here can be joined to an array; left out: unknown"),
  ownKindOnly: z.boolean().optional().describe("through-plugs: takes parts of the same type only"),
  heatsink: z.boolean().optional().describe("M.2 slots: a heatsink lies on it; left out: unknown"),
  rank: z.number().int().min(0).max(99).default(0).describe("lower is used first: the fastest slot, the board's memory order"),
  pinout: z.record(z.string(), z.string()).optional().describe("the board's own pin order, pin number to signal"),
  coveredBy: z
    .array(z.enum(["card", "cooler", "supply", "radiator", "memory"]))
    .default([])
    .describe("what hides this port once it is in"),
  tailMm: Length.default(0).describe("length of the wire, where the port hangs on one"),
  rail: Label.optional().describe("supply outlets: the 12 V rail behind it, where the supply has several"),
});
export type Port = z.infer<typeof Port>;

export const LEAD_ROLES = [
  "panel",
  "audio",
  "usb",
  "cpu-fan",
  "radiator-fan",
  "case-fan",
  "pump",
  "cooler-speed",
  "hub-control",
  "light",
  "light-control",
  "splitter-in",
  "cable-root",
  "power-out",
  "data",
  "seat",
] as const;

export const Lead = z.strictObject({
  id: Id,
  label: Label,
  family: FamilyId,
  key: Label.optional(),
  flow: z.enum(["in", "out"]).default("in").describe("in: takes power or signal from the port; out: brings it there"),
  role: z.enum(LEAD_ROLES),
  lengthMm: Length,
  need: Need.default("wanted"),
  load: Load.default({ currentA: 0 }),
  control: Control.optional(),
  reportsSpeed: z.boolean().optional(),
  positions: z
    .array(z.string().max(40))
    .max(10)
    .optional()
    .describe("front-panel plugs: the signal of each position, `blank` where there is no wire"),
  mostInChain: z.number().int().min(1).max(50).optional().describe("parts with a through-plug: as many may hang one behind the other"),
  usbPorts: z.union([z.literal(1), z.literal(2)]).optional(),
  protocol: z.enum(["nvme", "sata"]).optional(),
  link: z
    .strictObject({ generation: z.number().int().min(1).max(5), lanes: Lanes, leastLanes: Lanes.optional() })
    .optional()
    .describe("cards and M.2 drives: the PCI Express link that they want, and the fewest lanes they work with"),
  ownControl: z.enum(["button", "knob"]).optional().describe("hubs: what sets modes or speed at the part itself while this lead hangs nowhere"),
  fedBy: Id.optional().describe("for `out` leads: the port of the same part that feeds it"),
  limit: Limit.optional(),
});
export type Lead = z.infer<typeof Lead>;

/** A cable that comes with a part: a modular or fixed cable of a supply, a SATA data cable of a board. */
export const Cable = z.strictObject({
  id: Id,
  label: Label,
  count: z.number().int().min(1).max(20),
  captive: z.boolean().default(false),
  rail: Label.optional().describe("captive cables: the 12 V rail that they hang on, where the supply has several"),
  outlets: z
    .array(Label)
    .max(2)
    .default([])
    .describe("kinds of outlets that its root plugs need, one each; whose pin-out they have is said by `outletSystem`"),
  ends: z
    .array(z.strictObject({ id: Id, family: FamilyId, atMm: Length, limit: Limit.default({}) }))
    .min(1)
    .max(8)
    .describe("plugs in order; atMm is the distance from the root along the cable"),
  limit: Limit.default({}),
});
export type Cable = z.infer<typeof Cable>;
