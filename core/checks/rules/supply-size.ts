import { partsOfKind } from "../../assembly";
import { wholeDraw } from "../../power";
import { finding, PARTS_AND_PLAN, type Rule } from "../rule";

export const supplySize: Rule = {
  id: "supply-size",
  title: "The supply carries the whole machine",
  protects: "against shut-downs under load",
  on: PARTS_AND_PLAN,
  rests: { cpu: ["watts"], card: ["watts"], supply: ["watts"] },
  run: ({ graph }) => {
    const supply = partsOfKind(graph, "supply")[0];
    if (!supply) return [finding("supply-size", "stop", "There is no power supply in the parts list. Add one.", [])];
    const d = wholeDraw(graph);
    const numbers = `${Math.round(d.peakW)} W of ${d.supplyW} W at peak (${Math.round(d.loadShare * 100)} %)`;
    if (d.loadShare > 1)
      return [finding("supply-size", "stop", `The machine draws ${numbers}. It shuts down under load. Choose a larger supply.`, [supply.id])];
    if (d.loadShare > 0.85)
      return [finding("supply-size", "warn", `The machine draws ${numbers}: close to the limit, nothing left for an upgrade.`, [supply.id])];
    return [];
  },
};
