import { Migration } from "@mikro-orm/migrations";

/** Heads of jobs are kept ready for lists, the shelf counts its changes, and what changes is told to whoever listens. */
export class HeadsAndNews extends Migration {
  override up(): void {
    this.addSql(`create table "job_head" ("job_id" uuid not null, "revision" int not null, "next" text not null, "stops" int not null, "open_faults" int not null, "steps" int not null, "done" int not null, "minutes" int not null, "leads" int not null, "placed" int not null, constraint "job_head_pkey" primary key ("job_id"));`);
    this.addSql(`alter table "job_head" add constraint "job_head_job_id_foreign" foreign key ("job_id") references "job" ("id") on update cascade on delete cascade;`);
    this.addSql(`create index "job_stage_index" on "job" ("stage", "created_at");`);
    this.addSql(`create index "job_created_index" on "job" ("created_at");`);
    this.addSql(`create index "job_search_index" on "job" using gin ((lower("number" || ' ' || "client" || ' ' || "title")) gin_trgm_ops);`);
    this.addSql(`create index "job_part_serial_index" on "job_part" using gin (lower("serial") gin_trgm_ops);`);
    this.addSql(`create table "shop" ("id" int not null default 1, "shelf_revision" int not null default 1, constraint "shop_pkey" primary key ("id"));`);
    this.addSql(`insert into "shop" ("id") values (1);`);
    // What is on the shelf or promised from it changed: whoever changes it holds this row until the end of the transaction.
    this.addSql(`create function shelf_changed() returns trigger language plpgsql as $$ begin update "shop" set "shelf_revision" = "shelf_revision" + 1 where "id" = 1; return null; end $$`);
    this.addSql(`create trigger shelf_type_changed after insert or update or delete on "shelf_type" for each statement execute function shelf_changed()`);
    this.addSql(`create trigger job_part_takes after insert on "job_part" for each row when (new."origin" = 'shelf') execute function shelf_changed()`);
    this.addSql(`create trigger job_part_gives after delete on "job_part" for each row when (old."origin" = 'shelf') execute function shelf_changed()`);
    // News: equal ones of a transaction are sent once, and only when it is stored.
    this.addSql(`create function tell_job() returns trigger language plpgsql as $$ begin perform pg_notify('imbra', json_build_object('job', new."number", 'revision', new."revision")::text); return null; end $$`);
    this.addSql(`create trigger job_news after insert or update of "revision" on "job" for each row execute function tell_job()`);
    this.addSql(`create function tell_head() returns trigger language plpgsql as $$ begin perform pg_notify('imbra', json_build_object('head', (select "number" from "job" where "id" = new."job_id"))::text); return null; end $$`);
    this.addSql(`create trigger job_head_news after insert or update on "job_head" for each row execute function tell_head()`);
    this.addSql(`create function tell_shelf() returns trigger language plpgsql as $$ begin perform pg_notify('imbra', json_build_object('shelf', new."shelf_revision")::text); return null; end $$`);
    this.addSql(`create trigger shop_news after update on "shop" for each row execute function tell_shelf()`);
  }

  override down(): void {
    this.addSql(`drop trigger job_news on "job";`);
    this.addSql(`drop trigger shelf_type_changed on "shelf_type";`);
    this.addSql(`drop trigger job_part_takes on "job_part";`);
    this.addSql(`drop trigger job_part_gives on "job_part";`);
    this.addSql(`drop table "job_head", "shop" cascade;`);
    this.addSql(`drop function tell_job, tell_head, tell_shelf, shelf_changed;`);
    this.addSql(`drop index "job_stage_index", "job_created_index", "job_search_index", "job_part_serial_index";`);
  }
}
