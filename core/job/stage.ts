/** Where a job stands. `waiting` keeps the stage that it goes back to apart. */
export const STAGES = ["intake", "planning", "bench", "first-boot", "soak", "waiting", "handed-over", "cancelled"] as const;
export type Stage = (typeof STAGES)[number];

/** What moves a job from one stage to another. */
export const HAPPENINGS = ["planned", "worked", "looked", "soaks", "waits", "arrived", "handed over", "cancelled", "reopened"] as const;
export type Happening = (typeof HAPPENINGS)[number];

const MOVES: Record<Exclude<Happening, "arrived">, Partial<Record<Stage, Stage>>> = {
  planned: { intake: "planning" },
  worked: { intake: "bench", planning: "bench" },
  looked: { intake: "first-boot", planning: "first-boot", bench: "first-boot" },
  soaks: { "first-boot": "soak" },
  waits: { intake: "waiting", planning: "waiting", bench: "waiting", "first-boot": "waiting", soak: "waiting" },
  "handed over": {
    intake: "handed-over",
    planning: "handed-over",
    bench: "handed-over",
    "first-boot": "handed-over",
    soak: "handed-over",
    waiting: "handed-over",
  },
  cancelled: {
    intake: "cancelled",
    planning: "cancelled",
    bench: "cancelled",
    "first-boot": "cancelled",
    soak: "cancelled",
    waiting: "cancelled",
  },
  // A machine that came back goes on at first boot; a job that was cancelled, at its plan.
  reopened: { "handed-over": "first-boot", cancelled: "planning" },
};

export const isStage = (s: string): s is Stage => (STAGES as readonly string[]).includes(s);

/**
 * The stage after something happened; the same where it moves nothing. `before` is where a waiting job stood.
 * Pure: the same stage and happening always lead to the same stage.
 */
export function stageAfter(stage: Stage, happening: Happening, before: Stage = "planning"): Stage {
  if (happening === "arrived") return stage === "waiting" ? before : stage;
  return MOVES[happening][stage] ?? stage;
}

/** Nothing more is recorded on a job that was handed over or cancelled, but that it is opened again. */
export const isClosed = (stage: Stage): boolean => stage === "handed-over" || stage === "cancelled";
