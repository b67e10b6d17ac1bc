export { withJudgedRemedies } from "./remedies";
export { type Context, type Finding, finding, type Remedy, type Rule, type Severity, type Try } from "./rule";
export { check, checkAll, checkParts, RULES } from "./run";
export { fitWays, withTriedWays } from "./tried";
