export { type Step, stepsOf } from "./steps";
