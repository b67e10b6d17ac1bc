import { z } from "zod";

/** A loom is a family of leads. `seat` is for parts that go straight into a socket or slot. */
export const LOOMS = ["power", "front-panel", "fans", "lighting", "data", "seat"] as const;
export const Loom = z.enum(LOOMS);
export type Loom = z.infer<typeof Loom>;

/** The two letters that stand on labels; a tag such as FN-04 lasts as long as the job. */
export const LOOM_TAG: Record<Loom, string> = {
  power: "PW",
  "front-panel": "FP",
  fans: "FN",
  lighting: "LT",
  data: "DT",
  seat: "ST",
};

export const LOOM_NAME: Record<Loom, string> = {
  power: "Power",
  "front-panel": "Front panel",
  fans: "Fans",
  lighting: "Lighting",
  data: "Data",
  seat: "Slots and sockets",
};
