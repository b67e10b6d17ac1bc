import { partsOfKind } from "../../assembly";
import { drivesWithoutCage } from "../../fit";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

/** Drives that hang in a cage which is out, or stands elsewhere. */
export const cageOut: Rule = {
  id: "cage-out",
  title: "Drives hang in a cage that is there",
  protects: "a drive without a place",
  on: PARTS_ONLY,
  reads: ["case", "drive"],
  run: ({ graph }) => {
    const shell = partsOfKind(graph, "case")[0];
    const drives = drivesWithoutCage(graph);
    if (!shell || drives.length === 0) return [];
    const names = drives.map((d) => d.part.label ?? d.type.name).join(", ");
    return [
      partsFinding("cage-out", {
        severity: "stop",
        message: `The drive cage ${shell.part.cage === "out" ? "is out" : "stands elsewhere"}, and ${drives.length === 1 ? "a drive hangs" : `${drives.length} drives hang`} in it: ${names}.`,
        parts: [shell.id, ...drives.map((d) => d.id)],
        tries: [
          {
            what: "The cage where the case comes with it",
            change: (build) => ({
              ...build,
              parts: build.parts.map(({ cage, ...p }) => (p.id === shell.id || cage === undefined ? p : { ...p, cage })),
            }),
          },
        ],
      }),
    ];
  },
};
