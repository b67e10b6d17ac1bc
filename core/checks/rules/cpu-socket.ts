import { boardPorts, partsOfKind } from "../../assembly";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

export const cpuSocket: Rule = {
  id: "cpu-socket",
  title: "The CPU fits the socket",
  protects: "bent contacts",
  on: PARTS_ONLY,
  rests: { board: ["socket"], cpu: ["socket"] },
  reads: ["board", "cpu"],
  run: ({ graph }) => {
    const socket = boardPorts(graph, "cpu")[0];
    const cpus = partsOfKind(graph, "cpu");
    if (!socket) return [];
    if (cpus.length === 0)
      return [partsFinding("cpu-socket", { severity: "stop", message: "There is no CPU in the parts list. Add one.", parts: [socket.part.id] })];
    return cpus.flatMap((cpu) => {
      const key = cpu.type.leads.find((l) => l.role === "seat")?.key;
      if (!key || !socket.port.key || key === socket.port.key) return [];
      return [
        partsFinding("cpu-socket", {
          severity: "stop",
          message:
            key === "assumed" || socket.port.key === "assumed" || socket.port.key === "another"
              ? `${cpu.type.name} is for another socket than that of ${socket.part.type.name}.`
              : `${cpu.type.name} is for socket ${key}; ${socket.part.type.name} has socket ${socket.port.key}.`,
          parts: [cpu.id, socket.part.id],
          ifIgnored: "It does not go in, and forcing it bends contacts.",
          swap: cpu.id,
        }),
      ];
    });
  },
};
