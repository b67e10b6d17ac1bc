export { type NamedColumns, type ReadMoment, readingsOf, withNames } from "./moments";
export { MOST_READING_CHARS, type ReadingColumn, type Readings, readReadings } from "./readings";
export { LIMITS, type Soak, soakOf } from "./soak";
export { MOST_THINNED, thinned } from "./thinned";
