import { partsOfKind } from "../../assembly";
import { firmwareBehind } from "../../wiring";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

export const firmware: Rule = {
  id: "firmware",
  title: "The board's firmware knows the CPU",
  protects: "a first start without a picture",
  on: PARTS_ONLY,
  reads: ["board", "cpu"],
  run: ({ graph }) => {
    const board = partsOfKind(graph, "board")[0];
    const chipset = board?.type.ratings.chipset;
    if (!board || !chipset) return [];
    return partsOfKind(graph, "cpu").flatMap((cpu) => {
      const needs = cpu.type.ratings.needsFirmware;
      if (!needs) return [];
      const least = needs[chipset];
      if (least === undefined)
        return [
          partsFinding("firmware", {
            severity: "stop",
            message: `No firmware for chipset ${chipset} knows ${cpu.type.name}; it runs on ${Object.keys(needs).join(", ")}.`,
            parts: [board.id, cpu.id],
            ifIgnored: "It does not start.",
            swap: board.id,
          }),
        ];
      const behind = firmwareBehind(graph).find((b) => b.cpu === cpu);
      if (!behind) return [];
      const { has, alone } = behind;
      return [
        partsFinding("firmware", {
          severity: alone ? "warn" : "stop",
          message: `${cpu.type.name} needs firmware ${least} on ${chipset}; ${board.type.name} ${board.part.firmware === undefined ? "is delivered with" : "has"} ${has}. ${alone ? "Update it before the first start: this board does so without a CPU." : "This board updates only with a CPU that it already knows: have the supplier do it, or borrow one."}`,
          parts: [board.id, cpu.id],
          ifIgnored: "No picture at the first start, and it looks like a dead board.",
          swap: board.id,
        }),
      ];
    });
  },
};
