export {
  type Alternative,
  alternatives,
  type Change,
  type Comparison,
  compare,
  type Difference,
  type Judged,
  judge,
  together,
  withType,
  withTypes,
} from "./compare";
