export { elsewhere } from "./elsewhere";
export { type Diagnosis, diagnose, type NextAction, type Seen, type Suspect } from "./suspects";
