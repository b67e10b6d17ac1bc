import { naturally, type PortNode, partsOfKind } from "../../assembly";
import { ALWAYS, finding, joints, type Rule } from "../rule";

const slots = (ports: readonly PortNode[]) =>
  ports
    .map((p) => p.port.label)
    .sort(naturally)
    .join(" and ");

/** The board's own table: the slots of lowest rank for this number of modules. */
export const memorySlots: Rule = {
  id: "memory-slots",
  title: "Modules sit in the board's pair",
  protects: "memory speed",
  on: ALWAYS,
  rests: { board: ["dimms"] },
  run: ({ graph, on }) => {
    const seated = joints(graph).filter((j) => j.port.port.role === "memory");
    const modules = partsOfKind(graph, "memory").length;
    if (seated.length === 0 || (on === "plugged" && seated.length < modules)) return [];
    const all = [...graph.ports.values()].filter((p) => p.port.role === "memory").sort((a, b) => a.port.rank - b.port.rank);
    const want = all.slice(0, seated.length);
    const wrong = seated.filter((j) => !want.includes(j.port));
    const out = [];
    const cpuDraws =
      partsOfKind(graph, "cpu")[0]?.type.ratings.hasGraphics === true && !partsOfKind(graph, "card").some((c) => c.type.ratings.hasGraphics);
    if (wrong.length > 0)
      out.push(
        finding(
          "memory-slots",
          cpuDraws ? "stop" : "warn",
          `${seated.length} modules are in ${slots(seated.map((j) => j.port))}; the board wants ${slots(want)}. Memory runs slower${cpuDraws ? ", and CPU graphics with it" : ""}.`,
          seated.map((j) => j.port.address),
        ),
      );
    if (modules === 1 && cpuDraws)
      out.push(
        finding(
          "memory-slots",
          "stop",
          "One module, and the CPU's graphics borrow memory: half the bandwidth. Fit two matched modules.",
          seated.map((j) => j.port.address),
        ),
      );
    return out;
  },
};
