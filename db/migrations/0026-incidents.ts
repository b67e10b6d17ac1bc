import { Migration } from "@mikro-orm/migrations";

/** A fault is one incident of several symptoms; what was seen of it and done about it is kept, each once, in order. */
export class Incidents extends Migration {
  override up(): void {
    this.addSql(`alter table "fault" add column "lines" jsonb not null default '[]', add column "causes" jsonb null, add column "minutes" real null, add column "simulated" boolean not null default false;`);
    this.addSql(`update "fault" set "lines" = jsonb_build_array("line");`);
    this.addSql(`alter table "fault" alter column "lines" drop default;`);
    this.addSql(
      `create table "fault_event" ("id" serial primary key, "job_id" uuid not null, "fault" int not null, "line" text null, "value" text null, "deed" text null, "words" text not null default '', "result" text null, "minutes" real null, "simulated" boolean not null default false, "by_id" uuid not null, "at" timestamptz not null default now());`,
    );
    this.addSql(`create index "fault_event_job_index" on "fault_event" ("job_id", "fault", "id");`);
    this.addSql(
      `alter table "fault_event" add constraint "fault_event_job_id_foreign" foreign key ("job_id") references "job" ("id") on update cascade;`,
    );
    this.addSql(
      `alter table "fault_event" add constraint "fault_event_by_id_foreign" foreign key ("by_id") references "person" ("id") on update cascade;`,
    );
    this.addSql(
      `create trigger fault_event_append_only before update or delete on "fault_event" for each row execute function refuse_log_change();`,
    );
    this.addSql(
      `create trigger fault_event_never_emptied before truncate on "fault_event" for each statement execute function refuse_log_change();`,
    );
  }

  override down(): void {
    this.addSql(`drop table "fault_event";`);
    this.addSql(`alter table "fault" drop column "lines", drop column "causes", drop column "minutes", drop column "simulated";`);
  }
}
