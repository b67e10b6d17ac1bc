import { outletLimitW, outletLoads, railLimitW } from "../../power";
import { ALWAYS, finding, type Rule } from "../rule";

export const outletWatts: Rule = {
  id: "outlet-watts",
  title: "Outlets and rails of the supply stay within their watts",
  protects: "a supply that switches itself off under load",
  on: ALWAYS,
  run: ({ graph }) => {
    const { outlets, rails } = outletLoads(graph);
    return [
      ...[...outlets].flatMap(([port, { watts, cables }]) =>
        watts <= outletLimitW(port) + 1e-6
          ? []
          : [
              finding(
                "outlet-watts",
                "stop",
                `${port.name} gives ${Math.round(outletLimitW(port))} W; what hangs on it takes ${Math.round(watts)} W. Put part of it on another cable and outlet.`,
                [port.address, ...cables.map((c) => c.id)],
                { kind: "plan", label: "Plan the supply again" },
              ),
            ],
      ),
      ...rails.flatMap(({ supply, rail, watts, cables }) =>
        watts <= railLimitW(supply, rail) + 1e-6
          ? []
          : [
              finding(
                "outlet-watts",
                "stop",
                `12 V rail ${rail} of ${supply.part.label ?? supply.type.name} gives ${Math.round(railLimitW(supply, rail))} W; what hangs on it takes ${Math.round(watts)} W. Move a cable to an outlet of another rail.`,
                cables.map((c) => c.id),
                { kind: "plan", label: "Plan the supply again" },
              ),
            ],
      ),
    ];
  },
};
