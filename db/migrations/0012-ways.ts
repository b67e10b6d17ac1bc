import { Migration } from "@mikro-orm/migrations";

/** Leads that are led through another cut-out than the usual way would take: lead to cut-out. */
export class LeadWays extends Migration {
  override up(): void {
    this.addSql(`alter table "job" add column "ways" jsonb not null default '{}';`);
  }

  override down(): void {
    this.addSql(`alter table "job" drop column "ways";`);
  }
}
