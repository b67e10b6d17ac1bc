/** Who does something: every event names one. */
export interface Actor {
  id: string;
  name: string;
  role: string;
  /** They said who they are by a PIN alone, at a device where somebody had signed in. */
  byPin?: boolean;
  /** Their sign-in. */
  session?: string;
}

/** What a person may do. */
export const PERMISSIONS = [
  "look",
  "record",
  "plan",
  "change parts",
  "run jobs",
  "keep the shelf",
  "end jobs",
  "keep the shop",
  "keep people",
] as const;
export type Permission = (typeof PERMISSIONS)[number];

/** What each role may do: the one table. */
export const ROLES = {
  reader: ["look"],
  technician: ["look", "record", "plan", "change parts", "run jobs", "keep the shelf"],
  lead: PERMISSIONS,
} as const satisfies Record<string, readonly Permission[]>;
export type Role = keyof typeof ROLES;

export const isRole = (role: string): role is Role => Object.hasOwn(ROLES, role);

/** What a few digits are not enough for. */
const WITH_PASSWORD: readonly Permission[] = ["end jobs", "keep the shop", "keep people"];

/** Nobody may do anything; a role may what its row says; by a PIN alone nothing that changes people or ends jobs. */
export const may = (actor: Actor | undefined, permission: Permission): boolean =>
  actor !== undefined &&
  isRole(actor.role) &&
  (ROLES[actor.role] as readonly Permission[]).includes(permission) &&
  !(actor.byPin && WITH_PASSWORD.includes(permission));

/** Why not, in a sentence. */
export function mayNot(actor: Actor | undefined, permission: Permission): string {
  if (!actor) return "Nobody is signed in here.";
  if (actor.byPin && may({ ...actor, byPin: false }, permission)) return `A PIN is not enough for this. Sign in with your password, ${actor.name}.`;
  return `${actor.name} is a ${actor.role} and may not do this (${permission}). Ask a lead.`;
}
