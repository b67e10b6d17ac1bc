import { ALWAYS, finding, joints, type Rule } from "../rule";

/** Joints between leads come apart while cables are dressed (common practice): a small tie round each. */
export const chainJoints: Rule = {
  id: "chain-joints",
  title: "Joints of chains are secured",
  protects: "one dark leg of a chain",
  on: ALWAYS,
  run: ({ graph }) => {
    const all = joints(graph).filter(
      ({ lead, port }) =>
        (lead.loom === "fans" || lead.loom === "lighting") &&
        lead.lead.flow === "in" &&
        port.part.type.leads.some((l) => l.id === port.port.fedBy && l.role !== "splitter-in"),
    );
    if (all.length === 0) return [];
    return [
      finding(
        "chain-joints",
        "note",
        `${all.length} ${all.length === 1 ? "joint" : "joints"} of chains to secure with a small tie: ${all.map(({ lead, port }) => `${lead.tag} behind ${port.part.part.label ?? port.part.type.name}`).join(", ")}.`,
        all.map(({ lead }) => lead.address),
      ),
    ];
  },
};
