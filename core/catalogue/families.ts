import { DATA_AND_SEATS } from "./family/data-seats";
import type { ConnectorFamily } from "./family/family";
import { FANS_AND_LIGHTS } from "./family/fans-lights";
import { FRONT_PANEL } from "./family/front-panel";
import { POWER } from "./family/power";

export type { ConnectorFamily, Pin } from "./family/family";

/** Every connector family Imbra knows. Adding one is adding an entry to its loom's file and its rows to the mating table. */
export const FAMILIES: readonly ConnectorFamily[] = [...POWER, ...FRONT_PANEL, ...FANS_AND_LIGHTS, ...DATA_AND_SEATS];

/** Do two families look alike, so that their names must be told apart? */
export const looksAlike = (a: string, b: string): boolean => {
  const shape = family(a).looks;
  return a === b || (shape !== undefined && family(b).looks === shape);
};

/** How ports of a family are drawn; of one that nobody knows (a draft), as any port. */
export const shapeOf = (id: string): Pick<ConnectorFamily, "drawnMm" | "lies" | "landmark"> => {
  const { drawnMm, lies, landmark } = BY_ID.get(id) ?? {};
  return { ...(drawnMm ? { drawnMm } : {}), ...(lies ? { lies } : {}), ...(landmark ? { landmark } : {}) };
};

const BY_ID = new Map(FAMILIES.map((f) => [f.id, f]));

export const FAMILY_IDS = FAMILIES.map((f) => f.id) as [string, ...string[]];

/** The family of that id. Ids are checked when a file is read, so a miss is a programming error. */
export function family(id: string): ConnectorFamily {
  const found = BY_ID.get(id);
  if (!found) throw new Error(`No connector family "${id}"`);
  return found;
}

export function isFamily(id: string): boolean {
  return BY_ID.has(id);
}
