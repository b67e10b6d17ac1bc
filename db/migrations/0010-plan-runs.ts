import { Migration } from "@mikro-orm/migrations";

/** Plans that are asked for, as rows that planner processes take. */
export class PlanRuns extends Migration {
  override up(): void {
    this.addSql(`create table "plan_run" ("id" uuid not null default gen_random_uuid(), "job_id" uuid not null, "hash" text not null, "state" varchar(255) not null default 'waiting', "share" real not null default 0, "words" text not null default '', "first" jsonb null, "result" jsonb null, "asked_by_id" uuid not null, "asked_at" timestamptz not null default now(), "taken_by" text null, "beat_at" timestamptz null, "tries" int not null default 0, "ended_at" timestamptz null, constraint "plan_run_pkey" primary key ("id"));`);
    this.addSql(`alter table "plan_run" add constraint "plan_run_job_id_foreign" foreign key ("job_id") references "job" ("id") on update cascade on delete cascade;`);
    this.addSql(`alter table "plan_run" add constraint "plan_run_asked_by_id_foreign" foreign key ("asked_by_id") references "technician" ("id") on update cascade;`);
    this.addSql(`create unique index "plan_run_open_unique" on "plan_run" ("job_id", "hash") where "state" in ('waiting', 'working');`);
    this.addSql(`create index "plan_run_state_index" on "plan_run" ("state", "asked_at");`);
    this.addSql(`create function tell_run() returns trigger language plpgsql as $$ begin perform pg_notify('imbra', json_build_object('run', new."id", 'job', (select "number" from "job" where "id" = new."job_id"))::text); return null; end $$`);
    this.addSql(`create trigger plan_run_news after insert or update on "plan_run" for each row execute function tell_run()`);
  }

  override down(): void {
    this.addSql(`drop table "plan_run";`);
    this.addSql(`drop function tell_run;`);
  }
}
