import { Migration } from "@mikro-orm/migrations";

/** What went back: which part of which job, why, since when, to whom, and when its replacement came. */
export class Returns extends Migration {
  override up(): void {
    this.addSql(
      `create table "part_return" ("id" uuid not null default gen_random_uuid(), "job_id" uuid not null, "part" varchar(255) not null, "name" text not null, "serial" text null, "why" varchar(255) not null, "words" text not null default '', "to_whom" text null, "since" timestamptz not null default now(), "closed_at" timestamptz null, "by_id" uuid not null, constraint "part_return_pkey" primary key ("id"));`,
    );
    this.addSql(`create index "part_return_job_id_part_index" on "part_return" ("job_id", "part");`);
    this.addSql(
      `alter table "part_return" add constraint "part_return_job_id_foreign" foreign key ("job_id") references "job" ("id") on update cascade on delete cascade;`,
    );
    this.addSql(`alter table "part_return" add constraint "part_return_by_id_foreign" foreign key ("by_id") references "person" ("id") on update cascade;`);
    this.addSql(
      `insert into "part_return" ("job_id", "part", "name", "serial", "why", "to_whom", "by_id") select p."job_id", p."key", coalesce(p."label", p."body"->>'name', p."key"), p."serial", 'dead', p."supplier", j."technician_id" from "job_part" p join "job" j on j."id" = p."job_id" where p."test_result" = 'dead' and j."technician_id" is not null;`,
    );
  }

  override down(): void {
    this.addSql(`drop table "part_return";`);
  }
}
