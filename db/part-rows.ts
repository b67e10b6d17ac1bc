import type { Part } from "../core/assembly";
import { type PartType, toStored } from "../core/catalogue";
import { JobPart, type JobRow } from "./entities";
import type { EntityManager } from "./orm";

/** A part of which some things are not known. */
type Loose = { [K in keyof Part]?: Part[K] | undefined } & Pick<Part, "id" | "type" | "from">;

/** The row of a part that joins a job, with the entry as it is now. What is not given is not known yet. */
export function layPart(
  em: EntityManager,
  job: JobRow,
  part: Loose,
  type: PartType | undefined,
  position: number,
  more: {
    arrivedAt?: Date | null;
    supplier?: string | null;
    warrantyUntil?: string | null;
    testResult?: string | null;
    testedWith?: string | null;
  } = {},
): void {
  em.create(JobPart, {
    job,
    key: part.id,
    type: part.type,
    label: part.label ?? null,
    mount: part.mount ?? null,
    zone: part.zone ?? null,
    serial: part.serial ?? null,
    origin: part.from,
    placing: placingOf(part),
    priceCents: part.price === undefined ? null : Math.round(part.price * 100),
    supplier: more.supplier ?? null,
    arrivedAt: more.arrivedAt ?? null,
    warrantyUntil: more.warrantyUntil ?? null,
    testResult: more.testResult ?? null,
    testedWith: more.testedWith ?? null,
    typeRevision: type?.revision ?? 1,
    position,
    body: type ? toStored(type) : {},
  });
}

/** How a part sits and whose it is, as its row keeps it: all that has no column of its own, so that a field that comes later is not lost. */
function placingOf({ id: _id, type: _type, label: _l, mount: _m, zone: _z, serial: _s, from: _f, price: _p, ...placing }: Loose) {
  return Object.fromEntries(Object.entries(placing).filter(([, value]) => Boolean(value)));
}
