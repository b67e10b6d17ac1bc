import { isOnRadiator, partsOfKind, regionOf } from "../../assembly";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

/** Front fans outside the frame and a radiator inside it: they are one block, in series. */
export const bothSides: Rule = {
  id: "both-sides",
  title: "Fans and radiator on both sides of the frame work together",
  protects: "air that is counted once",
  on: PARTS_ONLY,
  reads: ["case", "cooler", "fan"],
  run: ({ graph }) => {
    const shell = partsOfKind(graph, "case")[0];
    const radiator = partsOfKind(graph, "cooler").find((c) => c.type.body.radiator);
    const place = shell?.type.body.radiatorPlaces.find((p) => p.id === radiator?.part.mount);
    if (!radiator || !place || place.region !== "front") return [];
    const fans = partsOfKind(graph, "fan").filter((f) => regionOf(graph, f) === "front" && !isOnRadiator(f.part));
    const outside = fans.filter((f) => f.part.frame === "outside");
    if (outside.length === 0) return [];
    return [
      partsFinding("both-sides", {
        severity: "note",
        message: `${outside.length} front ${outside.length === 1 ? "fan sits" : "fans sit"} outside the frame and the radiator inside it: they push through it in series. It adds pressure, not twice the air; long screws go through both.`,
        parts: [radiator.id, ...outside.map((f) => f.id)],
      }),
    ];
  },
};
