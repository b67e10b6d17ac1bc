export { elsewhere } from "./elsewhere";
export { type Misplaced, misplaced } from "./misplaced";
export { type Diagnosis, diagnose, type NextAction, type Seen, type Suspect } from "./suspects";
