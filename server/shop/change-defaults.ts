import { z } from "zod";
import { LockMode, Shop } from "../../db";
import { done, no, type Result, yes } from "../kernel/result";
import { tell } from "../people/shop-log";
import { query, shopAction } from "../unit/action";
import { ShopDefaults, shopDefaults } from "./defaults";

/** The shop's defaults, all of them; `saw`: as they were when somebody began to change them. Jobs that are made already keep what they have. */
export const changeDefaults = shopAction({
  name: "shop.defaults",
  permission: "keep the shop",
  input: z.object({ defaults: ShopDefaults, saw: ShopDefaults }),
  run: async (unit, { defaults, saw }): Promise<Result> => {
    const was = await shopDefaults(unit.tx);
    if (JSON.stringify(was) !== JSON.stringify(saw))
      return no("Somebody changed the shop's defaults meanwhile. Nothing was changed. Look at them again and repeat what is yours.");
    const changed = (Object.keys(defaults) as (keyof ShopDefaults)[]).filter((k) => JSON.stringify(was[k]) !== JSON.stringify(defaults[k]));
    if (changed.length === 0) return done();
    const row = await unit.tx.findOneOrFail(Shop, { id: 1 }, { lockMode: LockMode.PESSIMISTIC_WRITE });
    row.defaults = defaults as Record<string, unknown>;
    tell(unit, "defaults", { changed });
    return done();
  },
});

/** What the shop sets for every job. */
export const defaultsView = query({ name: "shop.view", input: z.strictObject({}), run: async (em) => yes(await shopDefaults(em)) });
