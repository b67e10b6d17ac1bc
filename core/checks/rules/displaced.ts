import { ALWAYS, finding, isEmpty, type Rule } from "../rule";

export const displaced: Rule = {
  id: "displaced",
  title: "No drive on a port that a filled slot switches off",
  protects: "drives that would not be found",
  on: ALWAYS,
  run: ({ graph }) =>
    [...graph.ports.values()].flatMap((slot) => {
      if (isEmpty(graph, slot)) return [];
      return slot.port.displaces.flatMap((id) => {
        const off = graph.ports.get(`${slot.part.id}:${id}`);
        if (!off || isEmpty(graph, off)) return [];
        return [
          finding(
            "displaced",
            "stop",
            `${slot.name} is filled, which switches ${off.name} off. The drive there is not found. Use another port.`,
            [slot.address, off.address],
            { kind: "plan", label: "Plan the drives again" },
          ),
        ];
      });
    }),
};
