import { airOf } from "../../air";
import { list } from "../../words";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

export const noise: Rule = {
  id: "noise",
  title: "As quiet as the client asked",
  protects: "a machine that comes back",
  on: PARTS_ONLY,
  run: ({ graph }) => {
    const most = graph.build.wishes.noiseDb;
    if (most === undefined) return [];
    const a = airOf(graph);
    if (a.noiseDb <= most) return [];
    const loudest = [...a.fans].sort((x, y) => (y.noiseDb ?? 0) - (x.noiseDb ?? 0))[0];
    return [
      partsFinding("noise", {
        severity: "warn",
        message: `${a.noiseDb.toFixed(1)} dB(A) at ${Math.round(a.share * 100)} % speed, ${most} dB(A) asked for. Loudest: ${loudest?.part.part.label ?? loudest?.part.type.name ?? "none"}, ${(loudest?.noiseDb ?? 0).toFixed(1)} dB(A).${
          a.silent.length > 0
            ? ` Not counted: ${list(
                a.silent.map((p) => p.part.label ?? p.type.name),
                4,
              )}, of which nobody knows how loud.`
            : ""
        }`,
        parts: loudest ? [loudest.part.id] : [],
        tries:
          a.spare.length === 0
            ? []
            : [
                {
                  what: `Without ${a.spare.map((p) => p.part.label ?? p.type.name).join(", ")}, which the air does not need`,
                  change: (build) => ({ ...build, parts: build.parts.filter((p) => !a.spare.some((s) => s.id === p.id)) }),
                  leadsTo: (after) => `${airOf(after).noiseDb.toFixed(1)} dB(A)`,
                },
              ],
        ...(loudest ? { swap: loudest.part.id } : {}),
      }),
    ];
  },
};
