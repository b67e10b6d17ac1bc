import { partsOfKind } from "../../core/assembly";
import { radiatorSeats } from "../../core/fit";
import { JobPart } from "../../db";
import type { JobBuild } from "../build/build-of-job";
import { no, type Refusal } from "../kernel/result";
import type { JobUnit } from "../unit/unit";
import type { PartRow } from "./find-part";

/** What is said of it, or why it cannot hang there. */
type Hung = { ok: true; said: string } | Refusal;

/** A part on a mount of the case, or on none yet. */
export function hang(b: JobBuild, row: PartRow, name: string, to: string | null): Hung {
  const kind = b.graph.parts.get(row.key)?.type.kind;
  const mount = partsOfKind(b.graph, "case")[0]?.type.body.mounts.find((m) => m.id === to);
  if (to !== null && !mount) return no(`The case has no mount ${to}. Nothing was changed.`);
  if (mount && !mount.takes.some((t) => t === kind || (t === "radiator" && kind === "fan")))
    return no(`${mount.label} takes ${mount.takes.join(" or ")}: ${name} does not hang there. Nothing was changed.`);
  const there = b.build.parts.find((x) => x.mount === to && x.id !== row.key);
  if (mount && there) return no(`${mount.label} already holds ${there.label ?? there.id}. Move that first. Nothing was changed.`);
  row.mount = to;
  return { ok: true, said: mount ? `at ${mount.label}` : "without a mount" };
}

/** A cooler's radiator at a place of the case, its fans with it; none: where its fans are, or the first place that takes it. */
export async function hangRadiator(unit: JobUnit, b: JobBuild, row: PartRow, name: string, to: string | null): Promise<Hung> {
  const seat = radiatorSeats(b.graph).find((s) => s.cooler.id === row.key);
  if (!seat) return no(`${name} has no radiator to hang. Nothing was changed.`);
  const place = partsOfKind(b.graph, "case")[0]?.type.body.radiatorPlaces.find((p) => p.id === to);
  if (to !== null && !place) return no(`The case has no place ${to} for a radiator. Nothing was changed.`);
  const own = new Set(seat.fans.map((f) => f.id));
  const there = b.build.parts.find((x) => x.mount !== undefined && place?.mounts.includes(x.mount) && !own.has(x.id));
  if (there) return no(`A mount at the ${place?.label} already holds ${there.label ?? there.id}. Move that first. Nothing was changed.`);
  row.mount = to;
  if (!place) return { ok: true, said: "its radiator where it fits first" };
  const fans = await unit.tx.find(JobPart, { job: unit.job.id, key: { $in: [...own] } }, { limit: 20 });
  for (const [i, fan] of seat.fans.entries())
    Object.assign(fans.find((f) => f.key === fan.id) ?? {}, { mount: place.mounts[i % place.mounts.length] ?? null });
  return { ok: true, said: `its radiator at the ${place.label}${own.size > 0 ? ", its fans with it" : ""}` };
}
