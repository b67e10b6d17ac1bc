import { Migrator } from "@mikro-orm/migrations";
import { MIGRATIONS } from "./migrations";
import { ormConfig } from "./orm";

/** The connection of whoever brings a database to today's tables. Servers and planners never do, and read none of this. */
export function migratingConfig(url: string) {
  return { ...ormConfig(url), extensions: [Migrator], migrations: { emit: "ts" as const, snapshot: false, migrationsList: MIGRATIONS } };
}
