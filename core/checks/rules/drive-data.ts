import { whyEmpty } from "../../claims";
import { boardEnd, needOfSocket, otherEnd } from "../../wiring";
import { finding, PLAN_ONLY, type Rule, type Severity } from "../rule";

/** A drive with power and no data cable is silent: it turns, and nothing finds it. */
export const driveData: Rule = {
  id: "drive-data",
  title: "Every drive has a data cable that ends in a port",
  protects: "drives that would not be found",
  on: PLAN_ONLY,
  run: ({ graph }) =>
    [...graph.ports.values()].flatMap((p) => {
      if (p.port.role !== "drive-data" || p.port.flow !== "in") return [];
      const severity: Severity = ({ mandatory: "stop", wanted: "warn", optional: "note" } as const)[needOfSocket(graph, p)];
      const there = graph.atPort.get(p.address)?.[0];
      if (!there) return [finding("drive-data", severity, `${p.name} is empty: the drive is not found. ${whyEmpty(graph, p)}`, [p.address])];
      if (boardEnd(graph, there)) return [];
      const tag = graph.leads.get(there.lead)?.tag ?? there.lead;
      const other = otherEnd(graph, there);
      return [
        finding(
          "drive-data",
          severity,
          `The cable in ${p.name} (${tag}) ends ${other ? `in ${other.name}, which gives no data` : "nowhere"}: the drive is not found. Plug its other end${other ? " into the board" : ""}.`,
          [p.address, there.lead],
        ),
      ];
    }),
};
