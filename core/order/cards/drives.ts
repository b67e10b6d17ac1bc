import { type Cards, counted, plugsOf } from "./kind";

/** Drives in their cage: plugged, then slid in. */
export const DRIVES: Cards<"cage"> = {
  cage: {
    kind: "assembly",
    title: (steps) => {
      const plugs = plugsOf(steps);
      return plugs > 0 ? `Drives: ${counted(plugs, "plug")}, then into the cage` : `Slide ${counted(steps.length, "drive")} into the cage`;
    },
  },
};
