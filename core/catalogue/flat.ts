import { z } from "zod";
import { PartType } from "./part-type";

type Cell = "number" | "boolean" | "text";

function inner(s: unknown): unknown {
  return s instanceof z.ZodOptional || s instanceof z.ZodDefault ? inner(s.unwrap()) : s;
}

function cellOf(s: unknown): Cell | undefined {
  const plain = inner(s);
  if (plain instanceof z.ZodNumber) return "number";
  if (plain instanceof z.ZodBoolean) return "boolean";
  return plain instanceof z.ZodString || plain instanceof z.ZodEnum ? "text" : undefined;
}

const fieldsOf = (name: "body" | "ratings") => {
  const object = inner(PartType.shape[name]);
  const shape = object instanceof z.ZodObject ? object.shape : {};
  return Object.entries(shape).flatMap(([key, s]) => {
    const cell = cellOf(s);
    return cell ? [{ path: `${name}.${key}`, group: name, key, cell }] : [];
  });
};

/** Every field of an entry that fits into one cell of a table, by its path. Taken from the schema itself. */
export const FLAT_FIELDS = [...fieldsOf("body"), ...fieldsOf("ratings")];

/** The flat fields of an entry that have a value. */
export function flatValues(type: PartType): Map<string, string> {
  return new Map(
    FLAT_FIELDS.flatMap((f) => {
      const value = (type[f.group] as Record<string, unknown>)[f.key];
      return value === undefined ? [] : [[f.path, String(value)] as const];
    }),
  );
}

/** The entry, as plain data, with cells written into it; an empty cell takes the value away. Cells that are no number are named. */
export function withFlatValues(type: PartType, cells: ReadonlyMap<string, string>): { data: unknown; faults: string[] } {
  const faults: string[] = [];
  const groups: Record<"body" | "ratings", Record<string, unknown>> = { body: { ...type.body }, ratings: { ...type.ratings } };
  for (const f of FLAT_FIELDS) {
    const cell = cells.get(f.path)?.trim();
    const at = groups[f.group];
    if (cell === undefined) continue;
    if (cell === "") delete at[f.key];
    else if (f.cell === "text") at[f.key] = cell;
    else if (f.cell === "boolean") {
      if (/^(true|yes|1)$/i.test(cell)) at[f.key] = true;
      else if (/^(false|no|0)$/i.test(cell)) at[f.key] = false;
      else faults.push(`${f.path}: "${cell.slice(0, 40)}" is neither true nor false.`);
    } else {
      const n = Number(cell);
      if (Number.isFinite(n)) at[f.key] = n;
      else faults.push(`${f.path}: "${cell.slice(0, 40)}" is not a number. Write it with a point, without a unit.`);
    }
  }
  return { data: { ...type, ...groups }, faults };
}
