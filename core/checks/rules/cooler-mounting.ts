import { boardPorts, cpuCoolers } from "../../assembly";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

export const coolerMounting: Rule = {
  id: "cooler-mounting",
  title: "The cooler comes with a bracket for the socket",
  protects: "a cooler that cannot be fixed",
  on: PARTS_ONLY,
  reads: ["board", "cooler"],
  run: ({ graph }) => {
    const socket = boardPorts(graph, "cpu")[0];
    const key = socket?.port.key;
    if (!key) return [];
    return cpuCoolers(graph).flatMap((cooler) => {
      const known = cooler.type.body.mountings;
      if (!known || known.some((m) => m.socket === key)) return [];
      const fits = known.map((m) => m.socket).join(", ");
      return [
        partsFinding("cooler-mounting", {
          severity: "stop",
          message: `${cooler.type.name} has brackets for ${fits}, none for socket ${key} of ${socket.part.type.name}.`,
          parts: [cooler.id, socket.part.id],
          ifIgnored: "Held by another bracket it presses crooked, and the CPU runs hot.",
          swap: cooler.id,
        }),
      ];
    });
  },
};
