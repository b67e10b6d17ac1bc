import { type PartType, toStored } from "../../core/catalogue";
import { ShelfRevision, ShelfType } from "../../db";
import type { Unit } from "../unit/unit";
import type { MailRead } from "./mail-read";

/** A part that joins a job. */
export interface Joins {
  type: PartType;
  reused?: boolean | undefined;
  label?: string | undefined;
  price?: number | undefined;
}

/**
 * The parts of a mail's build. Those of no part type of the shelf get one: provisional, each value with what it rests on, under an id of its own,
 * so that the next mail with these words knows it.
 */
export async function keepMade(unit: Unit, { build, made, known }: MailRead, title: string): Promise<Joins[]> {
  const { tx } = unit;
  const ids = made.map((t) => t.id);
  const taken = new Set(
    (
      await tx.execute<{ id: string }[]>(
        `select "id" from "shelf_type" where "id" like any(select jsonb_array_elements_text(?::jsonb)) limit 10000`,
        [JSON.stringify(ids.map((id) => `${id.replace(/[\\%_]/g, (c) => `\\${c}`)}%`))],
      )
    ).map((r) => r.id),
  );
  const renamed = new Map<string, PartType>();
  for (const t of made) {
    let id = t.id;
    for (let n = 2; taken.has(id); n++) id = `${t.id.slice(0, 74)}-${n}`;
    taken.add(id);
    const type = { ...t, id };
    renamed.set(t.id, type);
    const body = toStored(type);
    tx.create(ShelfType, { id, kind: type.kind, maker: type.maker, name: type.name, revision: type.revision, body, stock: 0, spares: 0 });
    tx.create(ShelfRevision, {
      type: id,
      revision: type.revision,
      body,
      by: unit.by,
      at: unit.when.happened,
      because: `Made from the words of a mail, for ${title}`.slice(0, 500),
    });
  }
  const types = new Map(known.map((t) => [t.id, t]));
  return build.parts.flatMap((p) => {
    const type = renamed.get(p.type) ?? types.get(p.type);
    return type ? [{ type, reused: p.reused || undefined, label: p.label, price: p.price }] : [];
  });
}
