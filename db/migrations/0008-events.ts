import { Migration } from "@mikro-orm/migrations";

/** The log holds events with their data; jobs count what happened to them; columns are as long as what people may type. */
export class Events extends Migration {
  override up(): void {
    this.addSql(`alter table "job" alter column "purpose" type text, alter column "waiting_for" type text;`);
    this.addSql(`alter table "job" add column "stage_before" varchar(255) null, add column "revision" int not null default 1;`);
    this.addSql(`alter table "fault" alter column "expected" type text, alter column "seen" type text;`);
    this.addSql(`alter table "log_entry" alter column "text" drop not null, add column "happened_at" timestamptz null;`);
    // What was logged before happened when it arrived. The table refuses updates, so it is filled with the refusal set aside.
    this.addSql(`alter table "log_entry" disable trigger log_entry_append_only;`);
    this.addSql(`update "log_entry" set "happened_at" = "at";`);
    this.addSql(`alter table "log_entry" enable trigger log_entry_append_only;`);
    this.addSql(`alter table "log_entry" alter column "happened_at" set not null, alter column "happened_at" set default now();`);
    // A key is the sender's own for one job.
    this.addSql(`alter table "log_entry" drop constraint "log_entry_entry_key_unique";`);
    this.addSql(`alter table "log_entry" add constraint "log_entry_job_entry_key_unique" unique ("job_id", "entry_key");`);
    this.addSql(`create index "log_entry_lead_index" on "log_entry" ("job_id", ("data"->>'lead'), "id");`);
    this.addSql(`create trigger log_entry_never_emptied before truncate on "log_entry" for each statement execute function refuse_log_change()`);
  }

  override down(): void {
    this.addSql(`drop trigger log_entry_never_emptied on "log_entry";`);
    this.addSql(`drop index "log_entry_lead_index";`);
    this.addSql(`alter table "log_entry" drop constraint "log_entry_job_entry_key_unique";`);
    this.addSql(`alter table "log_entry" disable trigger log_entry_append_only;`);
    this.addSql(`update "log_entry" set "text" = coalesce("text", "kind");`);
    this.addSql(`update "log_entry" set "entry_key" = null where "entry_key" in (select "entry_key" from "log_entry" group by "entry_key" having count(*) > 1);`);
    this.addSql(`alter table "log_entry" enable trigger log_entry_append_only;`);
    this.addSql(`alter table "log_entry" add constraint "log_entry_entry_key_unique" unique ("entry_key");`);
    this.addSql(`alter table "log_entry" alter column "text" set not null, drop column "happened_at";`);
    this.addSql(`alter table "job" drop column "stage_before", drop column "revision";`);
  }
}
