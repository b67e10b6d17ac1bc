export { type Context, type Finding, finding, type Remedy, type Rule, type Severity } from "./rule";
export { check, checkAll, checkParts, judgeParts, type PartsJudgement, RULES } from "./run";
