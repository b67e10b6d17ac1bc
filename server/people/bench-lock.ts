import { z } from "zod";
import { LockMode, Shop } from "../../db";
import { shopAction } from "../kernel/action";
import { done } from "../kernel/result";
import { tell } from "./shop-log";

/** After how long a bench that nobody touched asks who it is. */
export const benchLock = shopAction({
  name: "people.bench-lock",
  permission: "keep people",
  input: z.object({ minutes: z.number().int().min(0, "at least 0: never").max(480, "at most 480: a working day") }),
  run: async (unit, { minutes }) => {
    const shop = await unit.tx.findOneOrFail(Shop, { id: 1 }, { lockMode: LockMode.PESSIMISTIC_WRITE });
    if (shop.benchLockMinutes !== minutes) tell(unit, "bench-lock", { was: shop.benchLockMinutes, now: minutes });
    shop.benchLockMinutes = minutes;
    return done();
  },
});
