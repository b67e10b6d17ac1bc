import { wholeParts } from "../../assembly";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

export const budget: Rule = {
  id: "budget",
  title: "The parts cost what was agreed",
  protects: "a quarrel at handover",
  on: PARTS_ONLY,
  run: ({ graph }) => {
    const most = graph.build.wishes.budget;
    const priced = wholeParts(graph).filter((p) => p.part.price !== undefined && !p.part.reused);
    const cents = priced.reduce((s, p) => s + Math.round((p.part.price ?? 0) * 100), 0);
    if (most === undefined || cents <= Math.round(most * 100)) return [];
    const dearest = [...priced].sort((a, b) => (b.part.price ?? 0) - (a.part.price ?? 0)).slice(0, 3);
    return [
      partsFinding("budget", {
        severity: "warn",
        message: `The ${priced.length} parts with a price cost ${(cents / 100).toFixed(2)}, the budget is ${most.toFixed(2)}. Dearest: ${dearest.map((p) => `${p.part.label ?? p.type.name} ${(p.part.price ?? 0).toFixed(2)}`).join(", ")}.`,
        parts: dearest.map((p) => p.id),
        ifIgnored: "The client hears of it at handover.",
        ...(dearest[0] ? { swap: dearest[0].id } : {}),
      }),
    ];
  },
};
