import { finding, PLAN_ONLY, type Rule } from "../rule";

export const toOrder: Rule = {
  id: "to-order",
  title: "What the wiring still needs",
  protects: "against standing there with the cables in hand",
  on: PLAN_ONLY,
  run: ({ graph }) =>
    graph.build.parts
      .filter((p) => p.from === "order")
      .map((p) =>
        finding("to-order", "warn", `${graph.parts.get(p.id)?.type.name ?? p.type} is not on the shelf. Order it: the plan uses it.`, [p.id]),
      ),
};
