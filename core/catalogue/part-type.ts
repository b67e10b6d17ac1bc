import { z } from "zod";
import { FAMILY_IDS } from "./families";

/** Millimetres; never negative, never beyond what a workshop sees. */
const Length = z.number().min(0).max(5000);
const Amount = z.number().min(0).max(10000);
const Id = z
  .string()
  .min(1)
  .max(80)
  .regex(/^[A-Za-z0-9_.+\-/]+$/, "use letters, digits and _ . + - / only");
const Label = z.string().min(1).max(120);
const FamilyId = z.enum(FAMILY_IDS);

export const Point = z.object({ xMm: z.number().min(-5000).max(5000), yMm: z.number().min(-5000).max(5000) });
export type Point = z.infer<typeof Point>;

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
  key: Label.optional().describe("for families with their own key: socket, memory type, outlet system, maker"),
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
  outlets: z.array(Label).max(2).default([]).describe("outlet systems that its root plugs need, one each"),
  ends: z
    .array(z.strictObject({ id: Id, family: FamilyId, atMm: Length, limit: Limit.default({}) }))
    .min(1)
    .max(8)
    .describe("plugs in order; atMm is the distance from the root along the cable"),
  limit: Limit.default({}),
});
export type Cable = z.infer<typeof Cable>;

const Mount = z.strictObject({
  id: Id,
  label: Label,
  region: z.enum(["front", "top", "rear", "bottom", "side", "behind-tray"]),
  takes: z.array(z.enum(["fan", "radiator", "drive", "supply", "hub", "lighting"])).min(1),
  at: Point,
  sizeMm: Length.optional(),
  frame: z
    .enum(["inside", "outside", "either"])
    .default("inside")
    .describe("where a fan can sit: inside the frame it takes room from the card, outside it does not"),
  filter: z.boolean().default(false),
});

export const FORM_FACTORS = ["ATX", "microATX", "FlexATX", "Mini-ITX", "E-ATX"] as const;
export const SUPPLY_FORMS = ["ATX", "SFX", "SFX-L", "TFX"] as const;

/** Display sockets by the names of their standards. */
export const DISPLAY_SOCKETS = ["HDMI", "DisplayPort", "USB-C", "DVI", "VGA"] as const;

const FanSize = z.union([z.literal(80), z.literal(92), z.literal(120), z.literal(140), z.literal(200)]);

/** A radiator: its block of fans, its outline without fans, and the tubes. Lengths in mm. */
export const Radiator = z.strictObject({
  fanMm: FanSize,
  fans: z.number().int().min(1).max(4),
  lengthMm: Length,
  widthMm: Length,
  thicknessMm: Length,
  tubeMm: Length.default(400),
  leavesPump: z
    .array(z.enum(["rear", "front", "top", "bottom"]))
    .min(1)
    .max(4)
    .optional()
    .describe("sides of the pump head at which the tubes may leave, as its bracket allows it to be turned; left out: any"),
});

/** Where a case takes a radiator: mounts it covers, the sizes, the room for radiator and fans together. */
export const RadiatorPlace = z.strictObject({
  id: Id,
  label: Label,
  region: z.enum(["front", "top", "rear", "bottom", "side"]),
  mounts: z.array(Id).min(1).max(8),
  fanMm: z.array(FanSize).min(1),
  maxLengthMm: Length,
  maxThicknessMm: Length.describe("radiator and fans together, before anything of the board is in the way"),
  overBoardMm: Length.optional().describe("top places: room between the place and the board's upper edge"),
  offsetMm: Length.optional().describe("top places: how far the radiator stands off the board's face; tall memory passes below less"),
});
export type RadiatorPlace = z.infer<typeof RadiatorPlace>;

/** In the order in which a parts list names them. */
export const PART_KINDS = [
  "board",
  "cpu",
  "cooler",
  "memory",
  "drive",
  "card",
  "supply",
  "case",
  "fan",
  "lighting",
  "hub",
  "usb-hub",
  "splitter",
  "extension",
  "adapter",
  "cable",
] as const;

/** A catalogue entry: data, never code. Positions are in mm from the part's top left corner, seen with the rear sockets left. */
export const PartType = z.strictObject({
  id: Id,
  kind: z.enum(PART_KINDS),
  maker: z.string().max(80),
  name: Label,
  revision: z.number().int().min(1).default(1),
  ports: z.array(Port).max(80).default([]),
  leads: z.array(Lead).max(40).default([]),
  cables: z.array(Cable).max(20).default([]),
  body: z
    .strictObject({
      widthMm: Length.optional(),
      heightMm: Length.optional(),
      depthMm: Length.optional(),
      formFactor: z.string().max(30).optional(),
      holes: z
        .array(z.strictObject({ id: Id, at: Point, post: z.boolean().optional().describe("cases: a fixed post in the middle that takes no screw") }))
        .max(20)
        .default([]),
      noStandoffs: z.boolean().optional().describe("cases: it comes with no standoff fitted; left out and no holes named: unknown"),
      boardAt: Point.optional(),
      frontIoAt: Point.optional(),
      mounts: z.array(Mount).max(60).default([]),
      cutouts: z
        .array(
          z.strictObject({
            id: Id,
            label: Label,
            at: Point,
            widthMm: Length.optional(),
            heightMm: Length.optional(),
            grommet: z.enum(["fixed", "may go"]).optional().describe("a rubber lip; one that may go leaves the whole opening"),
          }),
        )
        .max(30)
        .default([])
        .describe("openings in the tray, by their middles; 20 by 45 mm where no size is said"),
      channels: z
        .array(z.strictObject({ id: Id, label: Label, from: Point, to: Point, side: z.enum(["front", "rear"]) }))
        .max(40)
        .optional()
        .describe("cases: straight channels in which leads are led, along the case's edges; seen from the front"),
      bodies: z
        .array(
          z.strictObject({
            id: Id,
            label: Label,
            kind: z.enum(["cage", "cover"]),
            at: Point,
            widthMm: Length,
            heightMm: Length,
            side: z.enum(["front", "rear"]),
          }),
        )
        .max(20)
        .optional()
        .describe("cases: cages, which let no lead through, and covers (shrouds), under which leads go; from the top left corner"),
      rooms: z
        .array(z.strictObject({ label: Label, at: Point, widthMm: Length, heightMm: Length, depthMm: Length }))
        .max(12)
        .optional()
        .describe("cases: regions behind the tray with another depth than `behindTrayMm`"),
      tiePoints: z
        .array(z.strictObject({ id: Id, label: Label, at: Point, side: z.enum(["front", "rear"]) }))
        .max(60)
        .default([])
        .describe("loops and hooks for cable ties, on the front or the rear side of the tray; both seen from the front"),
      behindTrayMm: Length.optional(),
      maxCardMm: Length.optional(),
      maxCoolerMm: Length.optional(),
      leadLeaves: z.enum(["corner", "middle"]).optional().describe("fans: where the lead leaves the frame; left out: a corner"),
      slots: z.number().min(0.5).max(12).optional().describe("cards: how many slot widths it takes; cases: how many covers there are"),
      underMm: Length.optional().describe("coolers that reach over the memory: the tallest module that goes under"),
      radiator: Radiator.optional(),
      mountings: z
        .array(
          z.strictObject({
            socket: Label,
            bracket: Label.describe("which of the brackets in the box"),
            position: Label.optional().describe("which of its holes or marks"),
            spacers: Label.optional(),
            backplate: z.enum(["own", "board", "none"]).describe("own: its backplate goes behind the board; board: the one that is there stays"),
            turns: z
              .array(z.union([z.literal(0), z.literal(90), z.literal(180), z.literal(270)]))
              .min(1)
              .max(4)
              .optional()
              .describe("ways round that the head may go on, in degrees; left out: any"),
          }),
        )
        .max(12)
        .optional()
        .describe("coolers: how they are fitted to each socket; left out: unknown"),
      socketCutout: z.boolean().optional().describe("cases: the tray is open behind the CPU socket; left out: unknown"),
      forms: z.array(z.enum(FORM_FACTORS)).max(5).optional().describe("cases: boards that go in"),
      supplyForms: z.array(z.enum(SUPPLY_FORMS)).max(4).optional(),
      maxSupplyMm: Length.optional().describe("supply length with the drive cage out, cables included"),
      maxSupplyWithCageMm: Length.optional().describe("the same with the drive cage in"),
      cagePlaces: z
        .array(
          z.strictObject({
            id: Id,
            label: Label,
            maxSupplyMm: Length.optional().describe("supply length while the cage stands here, plugs included"),
            mounts: z.array(Id).max(12).default([]).describe("drive mounts that are in the cage"),
          }),
        )
        .max(6)
        .default([])
        .describe("cases: where the drive cage may stand; it comes in the first place"),
      frontGapMm: Length.optional().describe("cases: room between the front frame and the front panel, for fans outside the frame"),
      vertical: z
        .strictObject({
          slots: z.number().min(1).max(5),
          thicknessMm: Length,
          at: Point.optional().describe("where its slot is"),
          riserMm: Length.optional().describe("length of the riser that comes with the case"),
        })
        .optional()
        .describe("cases with a vertical card mount: covers and the room to the side panel"),
      radiatorPlaces: z.array(RadiatorPlace).max(10).default([]),
      landmarks: z
        .array(z.strictObject({ label: Label, at: Point, widthMm: Length, heightMm: Length }))
        .max(40)
        .default([]),
    })
    .default({
      holes: [],
      mounts: [],
      cutouts: [],
      tiePoints: [],
      landmarks: [],
      radiatorPlaces: [],
      cagePlaces: [],
    }),
  ratings: z
    .strictObject({
      powerW: Amount.optional(),
      peakW: Amount.optional(),
      idleW: Amount.optional(),
      heatW: Amount.optional(),
      cooledW: Amount.optional(),
      sizeGb: z.number().min(0).max(1_000_000).optional(),
      profileMts: Amount.optional(),
      defaultMts: Amount.optional(),
      limitMts: Amount.optional(),
      limitMtsFour: Amount.optional(),
      rpm: Amount.optional(),
      flowM3h: Amount.optional(),
      noiseDb: Amount.optional().describe("at full speed, dB(A) at 1 m"),
      pressureMm: Amount.optional().describe("fans: static pressure at full speed, mm of water"),
      typicalW: Amount.optional(),
      startW: Amount.optional().describe("drives: draw while spinning up"),
      railsW: z
        .strictObject({ v12: Amount.default(0), v5: Amount.default(0), v33: Amount.default(0) })
        .optional()
        .describe("peak draw by rail; left out: the practice share of its kind"),
      railsA: z
        .strictObject({ v12: Amount.optional(), v5: Amount.optional(), v33: Amount.optional() })
        .optional()
        .describe("supplies: what each rail gives"),
      railLimitsA: z.record(z.string().max(40), Amount).optional().describe("supplies with several 12 V rails: what each gives"),
      chipset: z.string().max(30).optional(),
      firmware: z.number().min(0).max(100).optional().describe("boards: the version it is delivered with"),
      flashWithoutCpu: z.boolean().optional(),
      needsFirmware: z.record(z.string(), z.number()).optional().describe("CPUs: the least version, by chipset"),
      kit: z.number().int().min(1).max(8).optional().describe("memory: modules sold together"),
      efficiency: z.enum(["none", "base", "bronze", "silver", "gold", "platinum", "titanium"]).optional(),
      hasGraphics: z.boolean().optional(),
      outputs: z
        .array(
          z.strictObject({
            socket: z.enum(DISPLAY_SOCKETS),
            count: z.number().int().min(1).max(8),
            widthPx: z.number().int().min(1).max(20_000).optional(),
            heightPx: z.number().int().min(1).max(20_000).optional(),
            hz: z.number().min(1).max(1000).optional(),
          }),
        )
        .max(8)
        .optional()
        .describe("cards, and boards for the CPU's own graphics: display outputs, with the most that each shows"),
      wireless: z.boolean().optional().describe("boards and cards: with a wireless network"),
      overclocked: z.boolean().optional(),
      looseIoShield: z.boolean().optional(),
      readMBs: z.number().min(0).max(100_000).optional().describe("drives: the most it reads, MB/s"),
      ownHeatsink: z.boolean().optional().describe("drives: comes with a heatsink of its own"),
      pasteApplied: z.boolean().optional(),
      fanless: z.boolean().optional(),
    })
    .default({}),
});
export type PartType = z.infer<typeof PartType>;
export type PartKind = PartType["kind"];
