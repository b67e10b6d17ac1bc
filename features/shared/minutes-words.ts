import type { Card } from "../../core/order";

export const minutesWords = (m: Card["minutes"]): string =>
  `${Math.round(m.handsOn)} min${m.unattended > 0 ? ` + ${Math.round(m.unattended)} by itself` : ""}`;
