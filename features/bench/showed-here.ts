import type { Graph } from "../../core/assembly";
import type { Entry } from "../device/entries";
import { type One, onesOf } from "../device/said";
import { showedOf } from "../shared/showed";
import type { Built } from "./otherwise";

type Value = string | number | boolean | null;

/** The values that something said of a part writes. */
function written(said: One): Record<string, Value> {
  if (said.kind === "place") {
    const { mount, blows, frame } = said;
    return Object.fromEntries(Object.entries({ mount, blows, frame }).flatMap(([k, v]) => (v === undefined ? [] : [[k, v]])));
  }
  if (said.kind === "swap") return { type: said.type };
  return said.kind === "measure" ? { mm: said.mm } : {};
}

/** What this bench shows of what is about to be written: of the page, or of what was said here of the same part since. */
export function withShowed(built: Built, graph: Graph, own: readonly Entry[]): Built {
  if (built.kind === "gone") return built;
  const part = graph.build.parts.find((p) => p.id === built.part);
  const fields = written(built);
  const saw = built.kind === "measure" ? { mm: part?.measured?.find((m) => m.what === built.what)?.mm ?? null } : showedOf(part, fields);
  for (const said of own.flatMap((e) => onesOf(e.said))) {
    if (said.number !== built.number || !("part" in said) || said.part !== built.part || said.kind !== built.kind) continue;
    if (said.kind === "measure" && built.kind === "measure" && said.what !== built.what) continue;
    for (const [field, value] of Object.entries(written(said))) if (field in saw) saw[field] = value;
  }
  return { ...built, saw };
}
