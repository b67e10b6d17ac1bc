/** Who does something: every event names one. */
export interface Actor {
  id: string;
  name: string;
  role: string;
}

/** What a person may do. */
export const PERMISSIONS = ["look", "record", "plan", "change parts", "run jobs", "keep the shelf"] as const;
export type Permission = (typeof PERMISSIONS)[number];

/** Everyone who is chosen by name may do all; who is not, may look. */
export const may = (actor: Actor | undefined, permission: Permission): boolean => actor !== undefined || permission === "look";
