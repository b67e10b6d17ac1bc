import type { Result } from "../kernel/result";
import type { PlanNews, Planned } from "./plan-job";

/** One line of what the planner tells a browser. */
export type PlanLine = PlanNews | { kind: "end"; result: Result<Planned> };
