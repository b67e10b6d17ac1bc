import { z } from "zod";
import { type EntityManager, Shop } from "../../db";

/** Where a first start ends: schools differ (common practice). */
export const FirstStartEnds = z.enum(["lights and fans", "firmware screen", "system"]);
export type FirstStartEnds = z.infer<typeof FirstStartEnds>;

export async function firstStartEnds(em: EntityManager): Promise<FirstStartEnds> {
  const shop = await em.findOne(Shop, { id: 1 });
  return FirstStartEnds.safeParse((shop?.defaults as { firstStartEnds?: unknown } | undefined)?.firstStartEnds).data ?? "system";
}
