export const STAGE_WORD: Record<string, string> = {
  intake: "Intake",
  planning: "Planning",
  bench: "On the bench",
  "first-boot": "First boot",
  soak: "Soak",
  waiting: "Waiting",
  "handed-over": "Handed over",
  cancelled: "Cancelled",
};
const STAGE_SLUG: Record<string, string> = {
  intake: "parts",
  planning: "wiring",
  bench: "bench",
  "first-boot": "first-boot",
  soak: "first-boot",
  waiting: "parts",
  "handed-over": "handover",
  cancelled: "handover",
};

/** The screen where the work of a stage is. */
export const stageSlug = (stage: string): string => STAGE_SLUG[stage] ?? "parts";
