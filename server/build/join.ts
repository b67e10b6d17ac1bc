import type { Build } from "../../core/assembly";
import type { PartType } from "../../core/catalogue";
import { isSeated, partIds, proposeMounts } from "../../core/intake";
import { type EntityManager, type JobRow, layPart } from "../../db";

/** More parts than this are no machine. */
export const MOST_PARTS = 200;

/** Rows for parts that join, with ids of their own and free mounts. */
export function joinParts(
  tx: EntityManager,
  job: JobRow,
  build: Build,
  list: readonly {
    type: PartType;
    serial?: string | undefined;
    reused?: boolean | undefined;
    label?: string | undefined;
    price?: number | undefined;
  }[],
): void {
  const known = new Map(build.partTypes.map((t) => [t.id, t]));
  const ids = partIds(
    list.map((p) => p.type.kind),
    new Set(build.parts.map((p) => p.id)),
  );
  const shell = [...build.parts.map((p) => known.get(p.type)), ...list.map((p) => p.type)].find((t) => t?.kind === "case");
  const size = (t: PartType | undefined) => (t?.body.widthMm === undefined ? {} : { sizeMm: t.body.widthMm });
  const mounts = proposeMounts(shell, [
    ...build.parts.map((p) => ({ id: p.id, kind: known.get(p.type)?.kind ?? "cable", ...size(known.get(p.type)), mount: p.mount ?? "-" })),
    ...list.map((p, i) => ({ id: ids[i] ?? "", kind: p.type.kind, seated: isSeated(p.type), ...size(p.type) })),
  ]);
  for (const [i, { type, serial, reused, label, price }] of list.entries()) {
    const id = ids[i] ?? "";
    layPart(
      tx,
      job,
      { id, type: type.id, mount: mounts.get(id), from: "client", serial, reused, label, price },
      type,
      build.parts.length + i,
      reused ? { arrivedAt: new Date() } : {},
    );
  }
}
