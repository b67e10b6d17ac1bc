import type { PromiseKind } from "../../core/intake";

/** In what a promise of a kind is measured; what is not here is seen, or not. */
export const PROMISE_UNIT: Partial<Record<PromiseKind, string>> = {
  program: "frames a second",
  quiet: "dB(A)",
  "memory-speed": "MT/s",
  overclock: "MHz",
};
