import { type Build, type Part, partsOfKind } from "../../assembly";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

const more = (build: Build, like: Part | undefined): Part[] => {
  if (!like) return [];
  const { serial: _, label: __, ...part } = like;
  let n = 2;
  while (build.parts.some((p) => p.id === `${part.id}-${n}`)) n++;
  return [{ ...part, id: `${part.id}-${n}` }];
};

export const memoryPair: Rule = {
  id: "memory-pair",
  title: "Modules come in matched pairs",
  protects: "half of the memory's speed",
  on: PARTS_ONLY,
  reads: ["memory", "card", "cpu"],
  run: ({ graph }) => {
    const modules = partsOfKind(graph, "memory");
    if (modules.length === 0) return [];
    const card = partsOfKind(graph, "card").some((c) => c.type.ratings.hasGraphics);
    const borrows = !card && partsOfKind(graph, "cpu").some((c) => c.type.ratings.hasGraphics);
    const severity = borrows ? "stop" : "warn";
    const why = borrows
      ? "The CPU's own graphics borrow memory and need both channels."
      : "Both channels together are faster; with a card of its own it matters less.";
    const parts = modules.map((m) => m.id);
    const kinds = new Set(modules.map((m) => m.type.id));
    if (kinds.size > 1)
      return [
        partsFinding("memory-pair", {
          severity,
          message: `The modules differ: ${[...new Set(modules.map((m) => m.type.name))].join(" and ")}. ${why}`,
          parts,
          ifIgnored: "They run at the slower one's speed, or not at their profile at all.",
        }),
      ];
    if (modules.length % 2 === 1)
      return [
        partsFinding("memory-pair", {
          // It starts with one module; half of its speed is gone.
          severity: "warn",
          message: `${modules.length} ${modules.length === 1 ? "module" : "modules"}: one channel stays empty. ${why}`,
          parts,
          ifIgnored: "It starts, and is slow; nobody notices until the client does.",
          tries: [
            {
              what: "One more module of the same kind",
              change: (build) => ({ ...build, parts: [...build.parts, ...more(build, modules[0]?.part)] }),
              leadsTo: (after) => `${partsOfKind(after, "memory").reduce((s, m) => s + (m.type.ratings.sizeGb ?? 0), 0)} GB then`,
            },
          ],
        }),
      ];
    const small = modules.find((m) => (m.type.ratings.sizeGb ?? 8) < 8);
    if (borrows && small)
      return [
        partsFinding("memory-pair", {
          severity: "warn",
          message: `${small.type.ratings.sizeGb} GB modules where graphics borrow memory: two of at least 8 GB are usual.`,
          parts,
          swap: small.id,
        }),
      ];
    return [];
  },
};
