import { Migration } from "@mikro-orm/migrations";

/** Jobs, parts, the shelf, plans, connections, the log, observations and faults. */
export class ThinSlice extends Migration {
  override up(): void {
    this.addSql(`create table "shelf_type" ("id" varchar(255) not null, "kind" varchar(255) not null, "maker" varchar(255) not null, "name" varchar(255) not null, "revision" int not null, "body" jsonb not null, "stock" int not null default 0, constraint "shelf_type_pkey" primary key ("id"));`);
    this.addSql(`create index "shelf_type_kind_index" on "shelf_type" ("kind");`);
    this.addSql(`create table "technician" ("id" uuid not null default gen_random_uuid(), "name" varchar(255) not null, "role" varchar(255) not null, constraint "technician_pkey" primary key ("id"));`);
    this.addSql(`alter table "technician" add constraint "technician_name_unique" unique ("name");`);
    this.addSql(`create table "job" ("id" uuid not null default gen_random_uuid(), "number" varchar(255) not null, "client" varchar(255) not null, "title" varchar(255) not null, "purpose" varchar(255) not null default '', "stage" varchar(255) not null, "bench" int null, "technician_id" uuid null, "due_on" date null, "waiting_for" varchar(255) null, "waiting_until" date null, "policy" jsonb not null, "settings" jsonb not null, "parts_revision" int not null default 1, "version" int not null default 1, "created_at" timestamptz not null default now(), constraint "job_pkey" primary key ("id"));`);
    this.addSql(`alter table "job" add constraint "job_number_unique" unique ("number");`);
    this.addSql(`create table "step_done" ("id" uuid not null default gen_random_uuid(), "job_id" uuid not null, "step" varchar(255) not null, "at" timestamptz not null default now(), "by_id" uuid not null, constraint "step_done_pkey" primary key ("id"));`);
    this.addSql(`alter table "step_done" add constraint "step_done_job_id_step_unique" unique ("job_id", "step");`);
    this.addSql(`create table "plan" ("id" uuid not null default gen_random_uuid(), "job_id" uuid not null, "revision" int not null, "parts_revision" int not null, "status" varchar(255) not null, "cost" jsonb not null, "free" jsonb not null, "cables" jsonb not null, "connections" jsonb not null, "made_by_id" uuid not null, "made_at" timestamptz not null default now(), "took_ms" int not null, constraint "plan_pkey" primary key ("id"));`);
    this.addSql(`alter table "plan" add constraint "plan_job_id_revision_unique" unique ("job_id", "revision");`);
    this.addSql(`create table "observation" ("id" uuid not null default gen_random_uuid(), "job_id" uuid not null, "line" varchar(255) not null, "as_expected" boolean not null, "value" varchar(255) not null, "at" timestamptz not null default now(), "by_id" uuid not null, constraint "observation_pkey" primary key ("id"));`);
    this.addSql(`alter table "observation" add constraint "observation_job_id_line_unique" unique ("job_id", "line");`);
    this.addSql(`create table "log_entry" ("id" serial primary key, "job_id" uuid not null, "at" timestamptz not null default now(), "by_id" uuid not null, "kind" varchar(255) not null, "text" text not null, "plan_revision" int null, "entry_key" varchar(255) null, "data" jsonb null);`);
    this.addSql(`alter table "log_entry" add constraint "log_entry_entry_key_unique" unique ("entry_key");`);
    this.addSql(`create table "connection" ("id" uuid not null default gen_random_uuid(), "job_id" uuid not null, "lead" varchar(255) not null, "port" varchar(255) not null, "place" jsonb null, "state" varchar(255) not null, "planned_port" varchar(255) null, "why" text not null default '', "plan_revision" int null, "changed_at" timestamptz not null default now(), constraint "connection_pkey" primary key ("id"));`);
    this.addSql(`alter table "connection" add constraint "connection_job_id_lead_unique" unique ("job_id", "lead");`);
    this.addSql(`create table "job_part" ("id" uuid not null default gen_random_uuid(), "job_id" uuid not null, "key" varchar(255) not null, "type" varchar(255) not null, "label" varchar(255) null, "mount" varchar(255) null, "zone" varchar(255) null, "serial" varchar(255) null, "origin" varchar(255) not null default 'client', "position" int not null, "body" jsonb not null, constraint "job_part_pkey" primary key ("id"));`);
    this.addSql(`alter table "job_part" add constraint "job_part_job_id_key_unique" unique ("job_id", "key");`);
    this.addSql(`create table "fault" ("id" uuid not null default gen_random_uuid(), "job_id" uuid not null, "number" int not null, "line" varchar(255) not null, "title" text not null, "expected" varchar(255) not null, "seen" varchar(255) not null, "state" varchar(255) not null default 'open', "tried" jsonb not null, "finding" text null, "opened_at" timestamptz not null default now(), "opened_by_id" uuid not null, "closed_at" timestamptz null, "version" int not null default 1, constraint "fault_pkey" primary key ("id"));`);
    this.addSql(`alter table "fault" add constraint "fault_job_id_number_unique" unique ("job_id", "number");`);
    this.addSql(`alter table "job" add constraint "job_technician_id_foreign" foreign key ("technician_id") references "technician" ("id") on update cascade on delete set null;`);
    this.addSql(`alter table "step_done" add constraint "step_done_job_id_foreign" foreign key ("job_id") references "job" ("id") on update cascade on delete cascade;`);
    this.addSql(`alter table "step_done" add constraint "step_done_by_id_foreign" foreign key ("by_id") references "technician" ("id") on update cascade;`);
    this.addSql(`alter table "plan" add constraint "plan_job_id_foreign" foreign key ("job_id") references "job" ("id") on update cascade on delete cascade;`);
    this.addSql(`alter table "plan" add constraint "plan_made_by_id_foreign" foreign key ("made_by_id") references "technician" ("id") on update cascade;`);
    this.addSql(`alter table "observation" add constraint "observation_job_id_foreign" foreign key ("job_id") references "job" ("id") on update cascade on delete cascade;`);
    this.addSql(`alter table "observation" add constraint "observation_by_id_foreign" foreign key ("by_id") references "technician" ("id") on update cascade;`);
    this.addSql(`alter table "log_entry" add constraint "log_entry_job_id_foreign" foreign key ("job_id") references "job" ("id") on update cascade;`);
    this.addSql(`alter table "log_entry" add constraint "log_entry_by_id_foreign" foreign key ("by_id") references "technician" ("id") on update cascade;`);
    this.addSql(`alter table "connection" add constraint "connection_job_id_foreign" foreign key ("job_id") references "job" ("id") on update cascade on delete cascade;`);
    this.addSql(`alter table "job_part" add constraint "job_part_job_id_foreign" foreign key ("job_id") references "job" ("id") on update cascade on delete cascade;`);
    this.addSql(`alter table "fault" add constraint "fault_job_id_foreign" foreign key ("job_id") references "job" ("id") on update cascade on delete cascade;`);
    this.addSql(`alter table "fault" add constraint "fault_opened_by_id_foreign" foreign key ("opened_by_id") references "technician" ("id") on update cascade;`);
    this.addSql(`create index "log_entry_job_index" on "log_entry" ("job_id", "id")`);
    // The log is append-only: a correction is a new entry.
    this.addSql(`create function refuse_log_change() returns trigger language plpgsql as $$ begin raise exception 'the log is append-only'; end $$`);
    this.addSql(`create trigger log_entry_append_only before update or delete on "log_entry" for each row execute function refuse_log_change()`);
  }

  override down(): void {
    this.addSql(`drop table if exists "log_entry", "observation", "fault", "step_done", "connection", "plan", "job_part", "job", "shelf_type", "technician" cascade`);
    this.addSql(`drop function if exists refuse_log_change`);
  }
}
