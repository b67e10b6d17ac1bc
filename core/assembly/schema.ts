import { z } from "zod";
import { DISPLAY_SOCKETS, PartType } from "../catalogue";
import { BUILD_VERSION } from "./versions";

/** The schools of the shop, which a job may override. Each has the default that `docs/decisions.md` argues for. */
export const Policy = z.strictObject({
  cooling: z.enum(["fans-follow-cpu", "pump-first", "self-controlled"]).default("fans-follow-cpu"),
  caseFans: z.enum(["group-by-place", "own-header", "hub"]).default("group-by-place"),
  secondCpuPlug: z.enum(["by-draw", "always"]).default("by-draw"),
  graphicsCables: z.enum(["by-draw", "one-each"]).default("by-draw"),
  cpuPlugW: z.number().min(50).max(1000).default(336),
  mainsV: z.union([z.literal(115), z.literal(230)]).default(230),
  mayOrder: z.boolean().default(true).describe("parts have not all arrived: a missing accessory may go on the order list"),
  benchTest: z.enum(["first", "straight-in"]).default("first"),
  rehearsal: z.enum(["no", "table"]).default("no"),
  coolerFirst: z.enum(["derived", "before", "after"]).default("derived"),
  supplyCables: z.enum(["derived", "before", "after"]).default("derived"),
  cardTurn: z.enum(["last", "early"]).default("last"),
  dressing: z.enum(["after-leads", "before-start", "after-start"]).default("after-leads"),
  sataData: z.enum(["last", "first"]).default("last"),
  driver: z.enum(["hand", "electric"]).default("hand"),
});
export type Policy = z.infer<typeof Policy>;

const PartId = z
  .string()
  .min(1)
  .max(60)
  .regex(/^[A-Za-z0-9_.+-]+$/, "use letters, digits and _ . + - only");

/** A terminal of a part: `part:terminal`. Cable instances are `part/cable/number:end`. */
export const Address = z
  .string()
  .min(3)
  .max(200)
  .regex(/^[^:\s]+:[^:\s]+$/, "write it as part:terminal");
export type Address = z.infer<typeof Address>;

export const Part = z.strictObject({
  id: PartId,
  type: z.string().min(1).max(80),
  label: z.string().max(120).optional().describe("what the technician calls it"),
  mount: z.string().max(80).optional().describe("the place in the case"),
  zone: z.string().max(40).optional().describe("fans of one zone turn together; left out: its region of the case"),
  serial: z.string().max(80).optional(),
  frame: z.enum(["inside", "outside"]).optional().describe("fans: which side of the frame; left out: inside, where the mount has a choice"),
  blows: z.enum(["in", "out"]).optional().describe("fans: left out, in at front, bottom and side, out at top and rear"),
  vertical: z.boolean().optional().describe("cards: on the case's vertical mount"),
  lowNoise: z.boolean().optional().describe("fans: through the low-noise lead, a resistor, that came with it: slower, quieter, less air"),
  boot: z.boolean().optional().describe("drives: the system starts from it; where none says so, the first drive in an M.2 slot"),
  inArray: z.boolean().optional().describe("drives: belongs to an array and wants a port that can be part of one"),
  cools: z
    .string()
    .max(60)
    .optional()
    .describe("coolers: what it cools: left out or `cpu` the CPU, the id of a card, or `loop` where its radiator is one of a loop of several"),
  tubes: z
    .enum(["rear", "front", "top", "bottom"])
    .optional()
    .describe("liquid coolers: the end of the radiator at which the tubes come out; left out: Imbra proposes one"),
  cage: z
    .string()
    .max(40)
    .optional()
    .describe("cases with a drive cage: the place where it stands, or `out`; left out: where the case comes with it"),
  standoffsSet: z.boolean().optional().describe("cases: the standoffs were set for this board, by hand"),
  inCase: z.boolean().optional().describe("boards: screwed into the case, by hand"),
  bracket: z.boolean().optional().describe("supplies: on a bracket into a larger bay"),
  fanUpMm: z.number().min(0).max(80).optional().describe("coolers over the memory: how far their front fan is clipped higher"),
  firmware: z
    .number()
    .min(0)
    .max(1_000_000)
    .optional()
    .describe("boards: the firmware that this very piece came with; it counts instead of its type's"),
  reused: z.boolean().optional().describe("the client's own part, used again"),
  measured: z
    .array(
      z.strictObject({
        what: z.string().min(1).max(170).describe("a length of its type: `heightMm`, `radiator.thicknessMm`, `lead:ID`, `end:CABLE:END`"),
        mm: z.number().min(0).max(5000),
      }),
    )
    .max(40)
    .optional()
    .describe("what a hand measured on this very part: it counts instead of its type's"),
  price: z.number().min(0).max(1_000_000).optional().describe("what it cost, in the shop's money"),
  from: z.enum(["client", "shelf", "order"]).default("client"),
});
export type Part = z.infer<typeof Part>;

/** A step of the work: `board-in`, `mount:fan-1`, `plug:fan-1:lead`. */
export const StepId = z
  .string()
  .min(1)
  .max(200)
  .regex(/^[a-z][a-z-]*(:[^\s]+)?$/, "write it as the order names it");

/** `fixed`: the technician wants it so; `planned`: from a plan; `plugged`: done with the hands; `checked`: looked at again. */
export const CONNECTION_STATES = ["fixed", "planned", "plugged", "checked"] as const;

export const Connection = z.strictObject({
  lead: Address,
  port: Address,
  place: z
    .array(z.number().int().min(1).max(30))
    .max(10)
    .optional()
    .describe("which pins of a front-panel block, in the order of the plug's positions; which half of a USB 2 header"),
  state: z.enum(CONNECTION_STATES).default("planned"),
});
export type Connection = z.infer<typeof Connection>;

/** What the client wants of the machine as a whole. */
export const Wishes = z.strictObject({
  purpose: z.string().max(300).default(""),
  budget: z.number().min(0).max(1_000_000).optional(),
  lighting: z.enum(["wanted", "indifferent", "none"]).default("indifferent"),
  noiseDb: z.number().min(10).max(80).optional().describe("loudest that is welcome, at 1 m"),
  monitors: z
    .array(
      z.strictObject({
        count: z.number().int().min(1).max(8).default(1),
        widthPx: z.number().int().min(320).max(20_000),
        heightPx: z.number().int().min(200).max(20_000),
        hz: z.number().min(20).max(1000).default(60),
        socket: z.enum(DISPLAY_SOCKETS),
      }),
    )
    .max(8)
    .default([])
    .describe("the client's monitors"),
  wireless: z.boolean().default(false),
  upgrade: z.string().max(200).default("").describe("what may come later"),
  upgradeW: z.number().min(0).max(2000).default(0).describe("what that would draw more"),
});
export type Wishes = z.infer<typeof Wishes>;

export const Settings = z.strictObject({
  fanShare: z.number().min(0.2).max(1).default(0.6).describe("planned fan speed in everyday use, as a share of full speed"),
  memoryProfile: z.boolean().default(false),
  cpuFanWarning: z.enum(["halt", "ignore"]).default("halt"),
});

/** So many part types a file carries itself at most. */
export const MOST_PART_TYPES = 200;

export const Build = z.strictObject({
  format: z.literal("imbra-build"),
  version: z.literal(BUILD_VERSION),
  name: z.string().min(1).max(120),
  client: z.string().max(120).optional(),
  policy: Policy.default(Policy.parse({})),
  settings: Settings.default(Settings.parse({})),
  wishes: Wishes.default(Wishes.parse({})),
  partTypes: z.array(PartType).max(MOST_PART_TYPES).default([]).describe("part types that the shelf lacks, or that this file carries itself"),
  parts: z.array(Part).min(1).max(200),
  accessories: z
    .array(
      z.strictObject({
        type: z.string().min(1).max(80),
        count: z.number().int().min(0).max(99),
        ordered: z.number().int().min(0).max(99).optional().describe("ordered for this build: it may be planned with, though it is not here"),
      }),
    )
    .max(60)
    .default([])
    .describe("splitters, hubs, extensions and adapters on the shelf"),
  connections: z.array(Connection).max(1500).default([]),
  modes: z
    .record(z.string().min(1).max(300), z.string().min(1).max(40))
    .optional()
    .describe(
      "the way each of some elements is in, other than good, for what the machine answers: part, `lead@port`, port, `mains`, `monitor`, a switch's lead",
    ),
  readings: z
    .array(z.strictObject({ line: z.string().min(1).max(200), value: z.string().min(1).max(120) }))
    .max(1000)
    .optional()
    .describe("what was seen and read of lines of the first-boot sheet, by the line's id"),
  observations: z
    .array(
      z.strictObject({
        line: z.string().min(1).max(200),
        value: z.string().min(1).max(120),
        afterActions: z.number().int().min(0).max(400).default(0).describe("how many of the actions had been done before it was seen"),
      }),
    )
    .max(1000)
    .optional()
    .describe("what was seen of a machine that is not right, by the line's id; without them the readings count"),
  actions: z
    .array(
      z.strictObject({
        action: z.string().min(1).max(300).describe("as `diagnose` names it"),
        result: z.string().min(1).max(120).describe("that was it, no change, changed, impossible, or what a test says"),
      }),
    )
    .max(400)
    .optional()
    .describe("what was done to find a fault, in order, with what came of it"),
  diagnosis: z
    .strictObject({
      priors: z
        .record(z.string().min(1).max(60), z.number().min(0.001).max(1000))
        .default({})
        .describe("times the usual, by kind and mode: `fan dead`"),
      minutes: z.record(z.string().min(1).max(300), z.number().min(0.1).max(10_000)).default({}).describe("of an action, instead of what is usual"),
      spares: z.array(z.string().min(1).max(40)).max(40).optional().describe("kinds of part of which a known-good one lies here; left out: all"),
      withinMinutes: z.number().min(1).max(1000).optional().describe("what is worth starting in so many minutes"),
    })
    .optional()
    .describe("what the shop knows, for finding a fault"),
  handover: z
    .strictObject({
      sold: z
        .unknown()
        .optional()
        .describe("what was agreed: `parts`, `beside` (`what`, `type`, `count`, `each`), `hours`, `rate`, `due`, `promises`"),
      promises: z
        .array(
          z.strictObject({
            about: z.string().max(40),
            words: z.string().max(500),
            verdict: z.enum(["kept", "not kept", "not tested", "open"]),
            because: z.string().max(500).default(""),
          }),
        )
        .max(60)
        .default([])
        .describe("what was promised, as it stands"),
      words: z
        .record(z.string().max(1500), z.strictObject({ words: z.string().max(500), who: z.string().max(120), on: z.iso.date() }))
        .default({})
        .describe("what the client said to a difference, by the line's `id`"),
      photos: z.array(z.string().max(40)).max(60).default([]).describe("places of the photo set that were taken"),
      bag: z.array(z.string().max(400)).max(300).default([]).describe("what somebody saw in the bag"),
      way: z.enum(["collected", "travels"]).optional(),
      packed: z.array(z.string().max(200)).max(60).default([]).describe("what was done for the way, by `id`"),
      loans: z
        .array(z.strictObject({ what: z.string().max(120), owner: z.string().max(120) }))
        .max(40)
        .default([])
        .describe("what is in the machine and belongs to somebody else"),
      soaked: z.boolean().default(false),
      safety: z.enum(["open", "passed", "failed"]).optional().describe("electrical safety test, where one is asked for"),
    })
    .optional()
    .describe("how the machine leaves"),
  ways: z
    .array(z.strictObject({ lead: Address, cutout: z.string().min(1).max(40) }))
    .max(600)
    .optional()
    .describe("leads that the technician leads through another cut-out than the usual way would take"),
  done: z.array(StepId).max(1000).optional().describe("steps that are done and make no connection; those that do are done when it is plugged"),
  pulled: z
    .array(z.strictObject({ step: StepId, before: StepId }))
    .max(1000)
    .optional()
    .describe("steps that somebody pulled before others by hand"),
});
export type Build = z.infer<typeof Build>;

/** Bounds beyond which a build is refused with a sentence instead of being worked on. */
export const MOST_LEADS = 600;
