import { z } from "zod";
import { Cable, Lead, Port } from "./connectors";
import { Amount, Id, Label, Length, Point } from "./values";

const Mount = z.strictObject({
  id: Id,
  label: Label,
  region: z.enum(["front", "top", "rear", "bottom", "side", "behind-tray"]),
  takes: z.array(z.enum(["fan", "radiator", "drive", "supply", "hub", "lighting"])).min(1),
  at: Point,
  sizeMm: Length.optional(),
  offMm: Length.optional().describe(
    "supplies that lie over the board: how far off the tray's face; left out: the supply stands at the tray. It lies flat then, 150 by its length",
  ),
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
  outletSystem: Label.optional().describe(
    "modular supplies and cable sets for them: whose pin-out it has, as its maker names it; two are the same only where maker and system are; left out: nobody else's cable belongs to it",
  ),
  figures: z
    .record(
      Id,
      z.strictObject({
        value: z.union([z.number(), z.string().max(80), z.boolean()]),
        is: z.enum(["said", "typical", "measured", "confirmed"]),
        from: z.string().max(200).optional().describe("the rule that gave a typical value, or where it was said"),
        by: z.string().max(80).optional(),
        at: z.string().max(40).optional(),
      }),
    )
    .optional()
    .describe("provisional parts: what each value rests on; left out: all of it is known"),
  placed: z
    .record(Id, z.strictObject({ label: Label.optional(), xMm: Length.optional(), yMm: Length.optional() }))
    .optional()
    .describe("counted parts: ports and mounts that somebody named or moved by hand, over where such parts usually have them"),
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
      panels: z.number().int().min(0).max(2).optional().describe("cases: side panels that come off; left out: two; 0: an open frame"),
      glass: z.boolean().optional().describe("cases: a panel of it is glass; left out: unknown"),
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
      withoutCpuPower: z
        .enum(["stops", "nothing", "goes off"])
        .optional()
        .describe("boards: what it does while no CPU plug is in: stops at the CPU's stage (if not said), does not react, starts and goes off"),
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

/** A cooler with a radiator: its entry has the radiator's measures, or, where nobody has measured it yet, a pump on one of its leads. */
export const isLiquid = (t: PartType): boolean =>
  t.kind === "cooler" && (t.body.radiator !== undefined || t.leads.some((l) => l.role === "pump" || l.role === "radiator-fan"));

/** Passes on what comes in: an adapter, or an extension of a power lead (its plug gives, an extension of a fan's or a light's lead takes). */
export const passesPower = (t: PartType): boolean => t.kind === "adapter" || (t.kind === "extension" && t.leads.some((l) => l.flow === "out"));
