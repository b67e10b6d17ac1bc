import { cpuCoolers, partsOfKind } from "../../assembly";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

export const coolerHeat: Rule = {
  id: "cooler-heat",
  title: "The cooler carries the CPU's heat",
  protects: "a CPU that slows itself down",
  on: PARTS_ONLY,
  rests: { cooler: ["cooledW"], cpu: ["watts"] },
  reads: ["cpu", "cooler"],
  run: ({ graph }) => {
    const cpu = partsOfKind(graph, "cpu")[0];
    if (!cpu) return [];
    const coolers = cpuCoolers(graph);
    if (coolers.length === 0)
      return [partsFinding("cooler-heat", { severity: "stop", message: `${cpu.type.name} has no cooler in the parts list.`, parts: [cpu.id] })];
    const heatW = cpu.type.ratings.heatW ?? 0;
    return coolers.flatMap((c) => {
      const has = c.type.ratings.cooledW;
      if (has === undefined || has >= heatW) {
        if (has !== undefined && heatW > 0 && has > heatW * 2.6)
          return [
            partsFinding("cooler-heat", {
              severity: "note",
              message: `${c.type.name} carries ${has} W, the CPU gives ${heatW} W: more cooler than it needs.`,
              parts: [c.id],
            }),
          ];
        return [];
      }
      return [
        partsFinding("cooler-heat", {
          severity: has < heatW * 0.75 ? "stop" : "warn",
          message: `${c.type.name} carries ${has} W; ${cpu.type.name} gives ${heatW} W at full load.`,
          parts: [c.id, cpu.id],
          ifIgnored: "The CPU slows itself down under load.",
          swap: c.id,
        }),
      ];
    });
  },
};
