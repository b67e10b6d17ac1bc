import type { PartNode } from "../assembly";

/** Peak draw of a part in W: its peak figure, else its rating. */
export const peakW = (p: PartNode): number => p.type.ratings.peakW ?? p.type.ratings.powerW ?? 0;
