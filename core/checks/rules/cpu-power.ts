import { whyEmpty } from "../../claims";
import { cpuDrawW, cpuFilledW, cpuSockets } from "../../power";
import { ALWAYS, finding, isEmpty, type Rule } from "../rule";

/** The draw against what the filled sockets carry by their contacts (practice: 7 A a contact, the shop's figure where it has one). */
export const cpuPower: Rule = {
  id: "cpu-power",
  title: "CPU plugs carry what the CPU draws",
  protects: "CPU plugs and the board's corner",
  on: ALWAYS,
  rests: { board: ["cpuPlugs"], supply: ["cpu"], cpu: ["watts"] },
  run: ({ graph }) => {
    const sockets = cpuSockets(graph);
    const filled = sockets.filter((s) => !isEmpty(graph, s));
    const [draw, carries] = [cpuDrawW(graph), cpuFilledW(graph)];
    if (filled.length === 0 || carries >= draw - 1e-9) return [];
    const empty = sockets.filter((s) => isEmpty(graph, s));
    const more = empty[0]
      ? `Plug ${empty.map((s) => s.name).join(" and ")} as well. ${whyEmpty(graph, empty[0])}`
      : "All of the board's sockets are filled: the board is too small for this CPU, or its plugs are halves.";
    return [
      finding(
        "cpu-power",
        "stop",
        `The CPU draws ${Math.round(draw)} W at most; ${filled.map((s) => s.name).join(" and ")} ${filled.length === 1 ? "carries" : "carry"} ${Math.round(carries)} W. ${more}`,
        sockets.map((s) => s.address),
        { kind: "plan", label: "Plan the supply again" },
      ),
    ];
  },
};
