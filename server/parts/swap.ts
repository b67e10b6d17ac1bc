import { lead as leadOf } from "../../core/assembly";
import { ShelfType } from "../../db";
import { done, no, type Result } from "../kernel/result";
import { sendBack } from "../receipt/returns";
import type { JobUnit } from "../unit/unit";
import { findPart, isOf } from "./find-part";
import { dropLost } from "./lost-links";

/** How it came to the swap: hands have taken its plugs out already, and why it goes back. */
interface Came {
  out?: boolean;
  why?: string;
}

/** Another type in place of a part. The same type again takes over its correction, where there is one. A changed type makes the plan stale. */
export async function swapPart(unit: JobUnit, part: string, typeId: string, { out = false, why }: Came = {}): Promise<Result> {
  const found = await findPart(unit, part);
  if (!found.ok) return found;
  const { row, name } = found;
  const type = await unit.tx.findOne(ShelfType, { id: typeId });
  if (!type) return no(`The shelf has no part type ${typeId}. Nothing was changed.`);
  const corrected = type.id === row.type && type.revision > row.typeRevision;
  if (type.id === row.type && !corrected) return done();
  const b = await unit.build();
  const was = b.types(row.type);
  if (was && type.kind !== was.kind) return no(`${type.name} is a ${type.kind}, not a ${was.kind}. Nothing was changed.`);
  const own = isOf(part);
  const touched = !out && b.build.connections.find((x) => (x.state === "plugged" || x.state === "checked") && (own(x.lead) || own(x.port)));
  if (touched && !corrected) return no(`${name} is plugged (${leadOf(b.graph, touched.lead).tag}). Take its plugs out first. Nothing was changed.`);
  // What was measured was another piece.
  if (!corrected) {
    const { measured: _, ...placing } = row.placing as { measured?: unknown };
    row.placing = placing;
  }
  // Somebody had the old piece in the hand: it goes back, and the new one's serial is asked for.
  if (!corrected && (row.serial || row.arrivedAt))
    await sendBack(unit, row, was?.name ?? row.type, { why: "exchanged", words: why ?? `${type.name} in its place.` });
  Object.assign(row, { type: type.id, body: type.body, typeRevision: type.revision, ...(corrected ? {} : { serial: null }) });
  unit.partsChanged();
  await dropLost(unit);
  if (corrected) unit.emit("part-corrected", { part, name: row.label ?? type.name, type: type.name, revision: type.revision });
  else unit.emit("part-swapped", { part, name, was: was?.name ?? typeId, now: type.name });
  return done();
}
