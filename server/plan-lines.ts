import type { PlanNews, Planned } from "./plan-job";
import type { Result } from "./result";

/** One line of what the planner tells a browser. */
export type PlanLine = PlanNews | { kind: "end"; result: Result<Planned> };
