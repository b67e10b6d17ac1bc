import { p } from "@mikro-orm/core";

export const id = () => p.uuid().primary().defaultRaw("gen_random_uuid()");
export const now = () => p.datetime().defaultRaw("now()");
