import { Migration } from "@mikro-orm/migrations";

/** How a machine leaves: its way out, what the client said to differences, what was seen in the bag, its safety test. */
export class Leaving extends Migration {
  override up(): void {
    this.addSql(`alter table "job" add column "leaving" jsonb not null default '{}';`);
  }

  override down(): void {
    this.addSql(`alter table "job" drop column "leaving";`);
  }
}
