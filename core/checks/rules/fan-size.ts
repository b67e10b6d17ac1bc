import { partsOfKind } from "../../assembly";
import { fanSeats } from "../../fit";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

export const fanSize: Rule = {
  id: "fan-size",
  title: "Fans fit their mounts",
  protects: "screw holes that do not meet",
  on: PARTS_ONLY,
  rests: { case: ["front", "top"], fan: ["sizeMm"] },
  reads: ["case", "fan"],
  run: ({ graph }) => {
    const shell = partsOfKind(graph, "case")[0];
    const seats = fanSeats(graph);
    const large = seats.filter((s) => s.mount.sizeMm !== undefined && s.sizeMm > s.mount.sizeMm);
    const homeless = partsOfKind(graph, "fan").filter((f) => !f.part.mount);
    const free = (shell?.type.body.mounts ?? []).filter((m) => m.takes.includes("fan") && !seats.some((s) => s.mount.id === m.id));
    return [
      ...large.map((s) =>
        partsFinding("fan-size", {
          severity: "stop",
          message: `${s.part.part.label ?? s.part.type.name} is ${s.sizeMm} mm; the mount ${s.mount.label} takes ${s.mount.sizeMm} mm.`,
          parts: [s.part.id],
          ifIgnored: "The screw holes do not meet.",
          swap: s.part.id,
        }),
      ),
      ...(shell && homeless.length > 0
        ? [
            partsFinding("fan-size", {
              severity: homeless.length > free.length ? "stop" : "note",
              message: `${homeless.length} ${homeless.length === 1 ? "fan has" : "fans have"} no mount yet; ${free.length} of ${shell.type.name} ${free.length === 1 ? "is" : "are"} free${
                free.length > 0
                  ? `: ${free
                      .slice(0, 6)
                      .map((m) => m.label)
                      .join(", ")}`
                  : ""
              }.`,
              parts: homeless.map((f) => f.id),
            }),
          ]
        : []),
    ];
  },
};
