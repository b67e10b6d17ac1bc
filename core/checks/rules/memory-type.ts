import { boardPorts, partsOfKind } from "../../assembly";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

export const memoryType: Rule = {
  id: "memory-type",
  title: "Memory is of the board's type, and there is a slot for each module",
  protects: "modules sent back",
  on: PARTS_ONLY,
  rests: { board: ["memory"], memory: ["memory"] },
  reads: ["board", "memory"],
  run: ({ graph }) => {
    const slots = boardPorts(graph, "memory");
    const board = slots[0]?.part;
    const modules = partsOfKind(graph, "memory");
    if (!board) return [];
    if (modules.length === 0)
      return [partsFinding("memory-type", { severity: "stop", message: "There is no memory in the parts list. Add some.", parts: [board.id] })];
    const key = slots[0]?.port.key;
    const wrong = modules.filter((m) => {
      const k = m.type.leads.find((l) => l.role === "seat")?.key;
      return k !== undefined && key !== undefined && k !== key;
    });
    if (wrong[0])
      return [
        partsFinding("memory-type", {
          severity: "stop",
          message: `${wrong[0].type.name} is ${wrong[0].type.leads.find((l) => l.role === "seat")?.key}; ${board.type.name} takes ${key}.`,
          parts: [...wrong.map((m) => m.id), board.id],
          ifIgnored: "The notch stands elsewhere: it does not go in.",
          swap: wrong[0].id,
        }),
      ];
    if (modules.length > slots.length)
      return [
        partsFinding("memory-type", {
          severity: "stop",
          message: `${modules.length} modules, ${slots.length} slots on ${board.type.name}.`,
          parts: modules.slice(slots.length).map((m) => m.id),
          tries: [
            {
              what: `${modules.length - slots.length === 1 ? "One module" : `${modules.length - slots.length} modules`} left out`,
              change: (build) => ({ ...build, parts: build.parts.filter((p) => !modules.slice(slots.length).some((m) => m.id === p.id)) }),
              leadsTo: (after) => `${partsOfKind(after, "memory").reduce((s, m) => s + (m.type.ratings.sizeGb ?? 0), 0)} GB then`,
            },
          ],
          ...(modules[0] ? { swap: modules[0].id } : {}),
        }),
      ];
    return [];
  },
};
