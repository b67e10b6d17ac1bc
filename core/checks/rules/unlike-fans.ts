import type { LeadNode } from "../../assembly";
import { commander } from "../../brings";
import { ALWAYS, finding, joints, type Rule } from "../rule";

/** Speeds further apart than this do not follow one curve well (common practice). */
const APART = 0.25;

/** Fans of unlike speed on one control: one curve cannot suit both. */
export const unlikeFans: Rule = {
  id: "unlike-fans",
  title: "Fans on one control are alike",
  protects: "quiet machines",
  on: ALWAYS,
  run: ({ graph }) => {
    const controls = new Map<string, { name: string; fans: LeadNode[] }>();
    for (const { lead, port } of joints(graph)) {
      if (!["case-fan", "radiator-fan", "cpu-fan"].includes(lead.lead.role) || lead.part.type.ratings.rpm === undefined) continue;
      const by = commander(graph, port);
      if (by.kind === "nothing") continue;
      const [id, name] = by.kind === "header" ? [by.port.address, by.port.name] : [by.part.id, by.part.part.label ?? by.part.type.name];
      const known = controls.get(id) ?? { name, fans: [] };
      known.fans.push(lead);
      controls.set(id, known);
    }
    return [...controls].flatMap(([id, { name, fans }]) => {
      const rpm = fans.map((l) => l.part.type.ratings.rpm ?? 0);
      const [low, high] = [Math.min(...rpm), Math.max(...rpm)];
      if (fans.length < 2 || high - low <= high * APART) return [];
      return [
        finding(
          "unlike-fans",
          "note",
          `${name} commands fans of ${low} to ${high} rpm (${fans.map((l) => l.tag).join(", ")}): one curve does not suit both.`,
          [id, ...fans.map((l) => l.address)],
        ),
      ];
    });
  },
};
