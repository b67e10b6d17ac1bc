import { airOf } from "../../air";
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
    const loudest = [...a.fans].sort((x, y) => y.noiseDb - x.noiseDb)[0];
    return [
      partsFinding("noise", {
        severity: "warn",
        message: `${a.noiseDb.toFixed(1)} dB(A) at ${Math.round(a.share * 100)} % speed, ${most} dB(A) asked for. Loudest: ${loudest?.part.part.label ?? loudest?.part.type.name ?? "none"}, ${loudest?.noiseDb.toFixed(1)} dB(A).`,
        parts: loudest ? [loudest.part.id] : [],
        ways: a.spare.length > 0 ? [`Leave out ${a.spare.map((p) => p.part.label ?? p.type.name).join(", ")}: the air is enough without.`] : [],
        ...(loudest ? { swap: loudest.part.id } : {}),
      }),
    ];
  },
};
