import type { Address } from "./schema";

/** The part of an address `part:terminal`; of a part's id, the id itself. */
export const partIdOf = (address: Address | string): string => address.slice(0, address.includes(":") ? address.indexOf(":") : undefined);
