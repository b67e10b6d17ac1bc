export { type Context, type Finding, finding, type Remedy, type Rule, type Severity } from "./rule";
export { check, checkAll, checkParts, RULES } from "./run";
