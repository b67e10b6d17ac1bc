import { Migration } from "@mikro-orm/migrations";

/** Findings that somebody set aside, with name and reason. */
export class Overrides extends Migration {
  override up(): void {
    this.addSql(
      `create table "finding_override" ("id" uuid not null default gen_random_uuid(), "job_id" uuid not null, "finding" varchar(500) not null, "rule" varchar(255) not null, "severity" varchar(255) not null, "message" text not null, "reason" text not null, "by_id" uuid not null, "at" timestamptz not null default now(), constraint "finding_override_pkey" primary key ("id"));`,
    );
    this.addSql(`create index "finding_override_job_index" on "finding_override" ("job_id");`);
    this.addSql(
      `alter table "finding_override" add constraint "finding_override_job_id_foreign" foreign key ("job_id") references "job" ("id") on update cascade on delete cascade;`,
    );
    this.addSql(
      `alter table "finding_override" add constraint "finding_override_by_id_foreign" foreign key ("by_id") references "technician" ("id") on update cascade;`,
    );
  }

  override down(): void {
    this.addSql(`drop table if exists "finding_override" cascade;`);
  }
}
