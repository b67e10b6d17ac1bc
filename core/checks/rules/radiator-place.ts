import { partsOfKind } from "../../assembly";
import { radiatorSeats } from "../../fit";
import { list } from "../../words";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

export const radiatorPlace: Rule = {
  id: "radiator-place",
  title: "The case has a place for the radiator",
  protects: "a cooler sent back",
  on: PARTS_ONLY,
  rests: { case: ["front", "top", "topThickMm"], cooler: ["radiatorMm"] },
  reads: ["case", "cooler", "fan"],
  run: ({ graph }) => {
    const shell = partsOfKind(graph, "case")[0];
    if (!shell) return [];
    return radiatorSeats(graph).flatMap((s) => {
      const name = s.cooler.part.label ?? s.cooler.type.name;
      const r = s.radiator;
      if (!s.place) {
        const places = shell.type.body.radiatorPlaces;
        const has =
          places.length === 0
            ? "has no place for a radiator"
            : `takes up to ${list(places.map((p) => `${p.maxLengthMm} mm with ${p.fanMm.join(" or ")} mm fans at the ${p.label}`))}`;
        return [
          partsFinding("radiator-place", {
            severity: "stop",
            message: `The radiator of ${name} is ${r.lengthMm} mm long with ${r.fans} × ${r.fanMm} mm fans; ${shell.type.name} ${has}.`,
            parts: [s.cooler.id, shell.id],
            ifIgnored: "The cooler cannot be mounted.",
            swap: s.cooler.id,
          }),
        ];
      }
      const wrong = s.fans.filter((f) => (f.type.body.widthMm ?? r.fanMm) !== r.fanMm);
      if (!s.place.fanMm.includes(r.fanMm))
        return [
          partsFinding("radiator-place", {
            severity: "stop",
            message: `${name} takes ${r.fanMm} mm fans; the ${s.place.label} of ${shell.type.name} takes ${s.place.fanMm.join(" or ")} mm.`,
            parts: [s.cooler.id, shell.id],
            swap: s.cooler.id,
          }),
        ];
      if (wrong.length > 0)
        return [
          partsFinding("radiator-place", {
            severity: "stop",
            message: `${list(wrong.map((f) => f.part.label ?? f.type.name))}: ${wrong[0]?.type.body.widthMm} mm fans on a radiator for ${r.fanMm} mm.`,
            parts: wrong.map((f) => f.id),
            ...(wrong[0] ? { swap: wrong[0].id } : {}),
          }),
        ];
      if (s.fans.length > 0 && s.fans.length < r.fans)
        return [
          partsFinding("radiator-place", {
            severity: "warn",
            message: `${name} has room for ${r.fans} fans and gets ${s.fans.length}: it cools less than it was sold for.`,
            parts: [s.cooler.id, ...s.fans.map((f) => f.id)],
          }),
        ];
      return [];
    });
  },
};
