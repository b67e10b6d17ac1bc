import { z } from "zod";
import { partsOfKind } from "../../core/assembly";
import type { PartKind } from "../../core/catalogue";
import { JobPart } from "../../db";
import { done, no } from "../kernel/result";
import { Saw, seenOtherwise } from "../kernel/saw";
import { JobNumber, key, PartKey } from "../kernel/text";
import { jobAction } from "../unit/action";
import { findPart } from "./find-part";
import { hang, hangRadiator } from "./hang";

export const PlacePart = z.object({
  number: JobNumber,
  part: PartKey,
  mount: key(80).nullable().optional(),
  frame: z.enum(["inside", "outside"]).nullable().optional(),
  blows: z.enum(["in", "out"]).nullable().optional(),
  vertical: z.boolean().optional(),
  tubes: z.enum(["rear", "front", "top", "bottom"]).nullable().optional(),
  reused: z.boolean().optional(),
  lowNoise: z.boolean().optional(),
  boot: z.boolean().optional(),
  cage: key(40).nullable().optional(),
  standoffsSet: z.boolean().optional(),
  bracket: z.boolean().optional(),
  /** Of a cooler: `cpu`, `loop`, or the card that it cools. */
  cools: key(60).nullable().optional(),
  fanUpMm: z.number().min(0).max(80).nullable().optional(),
  saw: Saw,
});

/** Where a part sits: its mount, a radiator's place, its side of the frame, the way a fan blows, a card stood up. */
export const placePart = jobAction({
  name: "parts.place",
  permission: "change parts",
  input: PlacePart,
  run: async (unit, p) => {
    const found = await findPart(unit, p.part);
    if (!found.ok) return found;
    const { row, name } = found;
    const b = await unit.build();
    const said: string[] = [];
    const kind = b.graph.parts.get(p.part)?.type.kind;
    const beside = KEYS.find((k) => p[k] !== undefined && !(kind && SAID_OF[k].includes(kind)));
    if (beside) return no(`${name} is a ${kind ?? "thing"}, of which nothing of the kind can be said (${beside}). Nothing was changed.`);
    const shell = partsOfKind(b.graph, "case")[0]?.type.body;
    if (p.cage && p.cage !== "out" && !shell?.cagePlaces.some((c) => c.id === p.cage))
      return no(`The case has no place ${p.cage} for its drive cage. Nothing was changed.`);
    if (p.cools && p.cools !== "cpu" && p.cools !== "loop" && b.graph.parts.get(p.cools)?.type.kind !== "card")
      return no(`There is no card ${p.cools} that ${name} could cool. Nothing was changed.`);
    const stored = row.placing as Record<string, string | number | boolean | undefined>;
    const two = seenOtherwise(p.saw, [
      { field: "mount", word: `where ${name} hangs`, is: row.mount ?? null, now: p.mount },
      ...FIELDS.map((field) => {
        const now = p[field];
        return { field, word: `${name}, ${WORD_OF[field]}`, is: stored[field] || null, now: now === undefined ? undefined : now || null };
      }),
    ]);
    if (two) return two;
    if (p.mount !== undefined) {
      const hung = kind === "cooler" ? await hangRadiator(unit, b, row, name, p.mount) : hang(b, row, name, p.mount);
      if (!hung.ok) return hung;
      said.push(hung.said);
    }
    const placing: Record<string, unknown> = { ...(row.placing as object) };
    for (const field of ["frame", "blows", "tubes", "cage", "cools"] as const) {
      const value = p[field];
      if (value === undefined) continue;
      if (value === null) delete placing[field];
      else placing[field] = value;
      said.push(PLACED[field](value));
    }
    for (const field of ["vertical", "reused", "lowNoise", "boot", "standoffsSet", "bracket"] as const) {
      const value = p[field];
      if (value === undefined) continue;
      if (value) placing[field] = true;
      else delete placing[field];
      said.push(SAID[field][value ? 0 : 1]);
    }
    if (p.fanUpMm !== undefined) {
      if (p.fanUpMm) placing.fanUpMm = p.fanUpMm;
      else delete placing.fanUpMm;
      said.push(p.fanUpMm ? `its front fan ${p.fanUpMm} mm higher` : "its fan as it comes");
    }
    if (p.reused) row.arrivedAt ??= unit.when.happened;
    // A system starts from one drive.
    if (p.boot) {
      for (const other of await unit.tx.find(JobPart, { job: unit.job.id }, { limit: 250 })) {
        const { boot, ...rest } = other.placing as Record<string, unknown>;
        if (boot && other.key !== p.part) other.placing = rest;
      }
    }
    row.placing = placing;
    // Whose a part is and where its tubes come out moves no plug: the plan stays good.
    if ([p.mount, p.frame, p.blows, p.vertical, p.boot, p.cools].some((x) => x !== undefined)) unit.partsChanged();
    unit.emit("part-placed", { part: p.part, name, changes: said });
    return done();
  },
});

/** Of which kinds of part each of these can be said. */
const SAID_OF: Record<
  "frame" | "blows" | "lowNoise" | "vertical" | "tubes" | "fanUpMm" | "boot" | "cage" | "standoffsSet" | "bracket" | "cools",
  PartKind[]
> = {
  frame: ["fan"],
  blows: ["fan"],
  lowNoise: ["fan"],
  vertical: ["card"],
  tubes: ["cooler"],
  fanUpMm: ["cooler"],
  boot: ["drive"],
  cage: ["case"],
  standoffsSet: ["case"],
  bracket: ["supply"],
  cools: ["cooler"],
};
const KEYS = Object.keys(SAID_OF) as (keyof typeof SAID_OF)[];

const WORD_OF = {
  frame: "which side of the frame",
  blows: "which way it blows",
  tubes: "where its tubes come out",
  cage: "where its drive cage is",
  vertical: "how it stands",
  reused: "whose it is",
  lowNoise: "its low-noise lead",
  boot: "whether the system starts from it",
  standoffsSet: "its standoffs",
  bracket: "its bracket",
  cools: "what it cools",
  fanUpMm: "how far its fan is moved up",
} as const;
const FIELDS = Object.keys(WORD_OF) as (keyof typeof WORD_OF)[];

const SAID = {
  vertical: ["on the vertical mount", "level on the board"],
  reused: ["the client's own, used again", "bought for this job"],
  lowNoise: ["through its low-noise lead", "without its low-noise lead"],
  boot: ["the system starts from it", "the system starts from another drive"],
  standoffsSet: ["the standoffs are set for this board", "the standoffs are to be set"],
  bracket: ["on a bracket into the larger bay", "without a bracket"],
} as const;

const PLACED = {
  frame: (v: string | null) => `${v ?? "inside"} the frame`,
  blows: (v: string | null) => `blowing ${v ?? "the usual way"}`,
  tubes: (v: string | null) => (v === null ? "tubes where they reach and are in nobody's way" : `tubes at the ${v} end`),
  cools: (v: string | null) => (v === null || v === "cpu" ? "cools the CPU" : v === "loop" ? "one of a loop of several" : `cools ${v}`),
  cage: (v: string | null) => (v === null ? "the drive cage as it comes" : v === "out" ? "the drive cage out" : `the drive cage at ${v}`),
};
