import { z } from "zod";
import { LockMode, Shop } from "../../db";
import { done } from "../kernel/result";
import { Saw, seenOtherwise } from "../kernel/saw";
import { shopAction } from "../unit/action";
import { tell } from "./shop-log";

/** After how long a bench that nobody touched asks who it is. */
export const benchLock = shopAction({
  name: "people.bench-lock",
  permission: "keep people",
  input: z.object({ minutes: z.number().int().min(0, "at least 0: never").max(480, "at most 480: a working day"), saw: Saw }),
  run: async (unit, { minutes, saw }) => {
    const shop = await unit.tx.findOneOrFail(Shop, { id: 1 }, { lockMode: LockMode.PESSIMISTIC_WRITE });
    const two = seenOtherwise(saw, [{ field: "minutes", word: "the minutes", is: shop.benchLockMinutes, now: minutes }]);
    if (two) return two;
    if (shop.benchLockMinutes !== minutes) tell(unit, "bench-lock", { was: shop.benchLockMinutes, now: minutes });
    shop.benchLockMinutes = minutes;
    return done();
  },
});
