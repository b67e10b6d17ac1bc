import { z } from "zod";
import { Wishes } from "../../core/assembly";
import { done } from "../kernel/result";
import { Saw, seenOtherwise } from "../kernel/saw";
import { JobNumber, line } from "../kernel/text";
import { jobAction } from "../unit/action";

export const WishesChange = z.object({
  number: JobNumber,
  purpose: line(300).optional(),
  budget: z.number().min(0).max(1_000_000).nullable().optional(),
  lighting: z.enum(["wanted", "indifferent", "none"]).optional(),
  noiseDb: z.number().min(10).max(80).nullable().optional(),
  upgrade: line(200).optional(),
  upgradeW: z.number().min(0).max(2000).optional(),
  monitors: Wishes.shape.monitors.unwrap().optional(),
  wireless: z.boolean().optional(),
  fanShare: z.number().min(0.2).max(1).optional(),
  saw: Saw,
});

const WORD = {
  purpose: "what it is for",
  budget: "the budget",
  lighting: "the lights",
  noiseDb: "how loud it may be",
  upgrade: "what is to come later",
  upgradeW: "the watts that are to come later",
  monitors: "the monitors",
  wireless: "wireless network",
} as const;

type Plain = string | number | boolean | null;
type Wished = Plain | Wishes["monitors"];
/** A wish as it is said in one line. */
const said = (v: Wished | undefined): Plain | undefined =>
  Array.isArray(v)
    ? v.map((m) => `${m.count > 1 ? `${m.count} × ` : ""}${m.widthPx} × ${m.heightPx}, ${m.hz} Hz, ${m.socket}`).join("; ") || "none"
    : v;

/** What the client wants, and the planned fan speed. */
export const changeWishes = jobAction({
  name: "job.wishes",
  permission: "run jobs",
  input: WishesChange,
  run: async (unit, w) => {
    const { build } = await unit.build();
    const { number: _number, fanShare, saw, ...wishes } = w;
    const stored = build.wishes as unknown as Record<string, Wished | undefined>;
    const two = seenOtherwise(saw, [
      ...Object.entries(wishes).map(([field, now]) => ({
        field,
        word: WORD[field as keyof typeof wishes],
        is: said(stored[field]) ?? null,
        now: said(now),
      })),
      { field: "fanShare", word: "the planned fan speed", is: build.settings.fanShare ?? null, now: fanShare },
    ]);
    if (two) return two;
    const next: Record<string, unknown> = { ...build.wishes };
    const given = Object.entries(wishes).flatMap(([what, value]) =>
      value === undefined || said(value) === (said(stored[what]) ?? null) ? [] : [{ what, value }],
    );
    for (const { what, value } of given) {
      if (value === null) delete next[what];
      else next[what] = value;
    }
    if (given.length === 0 && fanShare === undefined) return done();
    const changes = given.map(({ what, value }) => ({ what, value: said(value) ?? null }));
    unit.job.wishes = next;
    if (fanShare !== undefined) unit.job.settings = { ...build.settings, fanShare };
    unit.emit("wishes", { changes, ...(fanShare === undefined ? {} : { fanShare }) });
    return done();
  },
});
