import { Migration } from "@mikro-orm/migrations";

/** Logs of readings under load, thinned, and what they came to. */
export class SoakLogs extends Migration {
  override up(): void {
    this.addSql(
      `create table "soak_log" ("id" uuid not null default gen_random_uuid(), "job_id" uuid not null, "name" text not null, "readings" jsonb not null, "soak" jsonb not null, "by_id" uuid not null, "at" timestamptz not null default now(), constraint "soak_log_pkey" primary key ("id"));`,
    );
    this.addSql(`create index "soak_log_job_index" on "soak_log" ("job_id", "at");`);
    this.addSql(
      `alter table "soak_log" add constraint "soak_log_job_id_foreign" foreign key ("job_id") references "job" ("id") on update cascade on delete cascade;`,
    );
    this.addSql(`alter table "soak_log" add constraint "soak_log_by_id_foreign" foreign key ("by_id") references "person" ("id") on update cascade;`);
  }

  override down(): void {
    this.addSql(`drop table "soak_log";`);
  }
}
