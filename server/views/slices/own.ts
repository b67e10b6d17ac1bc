import type { Build } from "../../../core/assembly";

/** A build as a drawing needs it: its parts and their types, those that are named besides, and nothing else of the shelf. */
export function own(build: Build, named: readonly string[] = []): Build {
  const used = new Set([...build.parts.map((p) => p.type), ...named]);
  return { ...build, accessories: [], partTypes: build.partTypes.filter((t) => used.has(t.id)) };
}
