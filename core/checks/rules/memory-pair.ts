import { type Build, type Part, partsOfKind } from "../../assembly";
import { list } from "../../words";
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
    // Of two generations one does not go in at all: that is said by a rule of its own.
    if (new Set(modules.flatMap((m) => m.type.leads.map((l) => l.key))).size > 1) return [];
    if (kinds.size > 1)
      return [
        partsFinding("memory-pair", {
          severity,
          message: `The modules differ: ${list([...new Set(modules.map((m) => m.type.name))])}. ${borrows ? "The CPU's own graphics borrow memory and need both channels alike." : "Both channels are faster when they are alike; with a card of its own it matters less."}`,
          parts,
          ifIgnored: "They run at the slower one's speed, or not at their profile at all.",
        }),
      ];
    if (modules.length % 2 === 1)
      return [
        partsFinding("memory-pair", {
          // It starts with one module; half of its speed is gone.
          severity: "warn",
          message: `${modules.length === 1 ? "1 module: one channel stays empty" : `${modules.length} modules do not fill the channels evenly`}. ${why}`,
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
