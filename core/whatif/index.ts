export { type Alternative, alternatives, type Comparison, compare, type Difference, type Judged, judge, withType } from "./compare";
