import { Migration } from "@mikro-orm/migrations";

/** What a client wrote, and what was read of it: the mail, how to reach them, what is promised, what goes into no machine. */
export class Brief extends Migration {
  override up(): void {
    this.addSql(`alter table "job" add column "brief" jsonb not null default '{}';`);
  }

  override down(): void {
    this.addSql(`alter table "job" drop column "brief";`);
  }
}
