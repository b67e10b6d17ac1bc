import { Migration } from "@mikro-orm/migrations";

/** Steps pulled before others by hand, skipped with a reason, and how long each took. A liquid cooler's head is a step of its own now. */
export class WorkInOrder extends Migration {
  override up(): void {
    this.addSql(`alter table "job" add column "pulled" jsonb not null default '[]';`);
    this.addSql(
      `create table "step_skipped" ("id" uuid not null default gen_random_uuid(), "job_id" uuid not null, "step" varchar(255) not null, "reason" text not null, "at" timestamptz not null default now(), "by_id" uuid not null, constraint "step_skipped_pkey" primary key ("id"));`,
    );
    this.addSql(`alter table "step_skipped" add constraint "step_skipped_job_id_step_unique" unique ("job_id", "step");`);
    this.addSql(
      `create table "step_time" ("id" uuid not null default gen_random_uuid(), "job_id" uuid not null, "step" varchar(255) not null, "measure" varchar(255) not null, "seconds" int not null, "at" timestamptz not null default now(), "by_id" uuid not null, constraint "step_time_pkey" primary key ("id"));`,
    );
    this.addSql(`create index "step_time_measure_index" on "step_time" ("measure", "seconds");`);
    this.addSql(`create index "step_time_job_index" on "step_time" ("job_id");`);
    for (const table of ["step_skipped", "step_time"]) {
      this.addSql(
        `alter table "${table}" add constraint "${table}_job_id_foreign" foreign key ("job_id") references "job" ("id") on update cascade on delete cascade;`,
      );
      this.addSql(
        `alter table "${table}" add constraint "${table}_by_id_foreign" foreign key ("by_id") references "person" ("id") on update cascade;`,
      );
    }
    this.addSql(`insert into "step_done" ("job_id", "step", "at", "by_id")
      select s."job_id", 'head:' || p."key", s."at", s."by_id" from "step_done" s
      join "job_part" p on p."job_id" = s."job_id" and s."step" = 'mount:' || p."key"
      where p."body"->'body'->'radiator' is not null on conflict do nothing;`);
  }

  override down(): void {
    this.addSql(`drop table "step_time", "step_skipped";`);
    this.addSql(`alter table "job" drop column "pulled";`);
  }
}
