import { z } from "zod";
import { FAMILY_IDS } from "./families";

/** Millimetres; never negative, never beyond what a workshop sees. */
export const Length = z.number().min(0).max(5000);
export const Amount = z.number().min(0).max(10000);
export const Id = z
  .string()
  .min(1)
  .max(80)
  .regex(/^[A-Za-z0-9_.+\-/]+$/, "use letters, digits and _ . + - / only");
export const Label = z.string().min(1).max(120);
export const FamilyId = z.enum(FAMILY_IDS);

export const Point = z.object({ xMm: z.number().min(-5000).max(5000), yMm: z.number().min(-5000).max(5000) });
export type Point = z.infer<typeof Point>;
