export { type Frames, MOST_FRAME_CHARS, percentile, type Rates, ratesOf, readFrames } from "./frames";
export { absurdities, type Promised, type Proof, type Verdict, verdictOf } from "./proof";
