import { tubes } from "../../fit";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

export const tubeSide: Rule = {
  id: "tube-side",
  title: "Tubes come out where they are in nobody's way",
  protects: "a fan or card given up while fitting",
  on: PARTS_ONLY,
  reads: ["case", "cooler", "fan", "board", "card"],
  run: ({ graph }) =>
    tubes(graph).flatMap((t) => {
      const name = t.seat.cooler.part.label ?? t.seat.cooler.type.name;
      const out = [];
      const first = t.blocks[0];
      if (first)
        out.push(
          partsFinding("tube-side", {
            severity: "warn",
            message: `The tubes of ${name} come out at the ${t.end} end of the ${t.seat.place?.label} place, where ${t.blocks.map((b) => b.part.label ?? b.type.name).join(" and ")} ${t.blocks.length === 1 ? "stands" : "stand"}.`,
            parts: [t.seat.cooler.id, ...t.blocks.map((b) => b.id)],
            ifIgnored: "Found while fitting: the radiator is turned or hung again, or the fan is given up.",
            ways: ["Turn the radiator round.", ...(first.type.kind === "fan" ? [`Leave ${first.part.label ?? first.type.name} out.`] : [])],
          }),
        );
      if (t.pumpHighest)
        out.push(
          partsFinding("tube-side", {
            severity: "warn",
            message: `${name} hangs below its pump: air gathers in the pump.`,
            parts: [t.seat.cooler.id],
            ifIgnored: "Gurgling, and a pump that wears out early (common practice).",
            ways: ["Hang the radiator higher, so that its upper end stands above the CPU."],
          }),
        );
      return out;
    }),
};
