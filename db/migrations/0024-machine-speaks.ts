import { Migration } from "@mikro-orm/migrations";

/** What lets a machine send its readings, the readings as they come, and what of a record came from a stand-in. */
export class MachineSpeaks extends Migration {
  override up(): void {
    this.addSql(
      `create table "machine_token" ("id" uuid not null default gen_random_uuid(), "job_id" uuid not null, "token_hash" text not null, "name" text not null, "simulated" text null, "by_id" uuid not null, "at" timestamptz not null default now(), "until" timestamptz not null, "withdrawn_at" timestamptz null, constraint "machine_token_pkey" primary key ("id"));`,
    );
    this.addSql(`alter table "machine_token" add constraint "machine_token_token_hash_unique" unique ("token_hash");`);
    this.addSql(`create index "machine_token_job_index" on "machine_token" ("job_id", "at");`);
    this.addSql(
      `alter table "machine_token" add constraint "machine_token_job_id_foreign" foreign key ("job_id") references "job" ("id") on update cascade on delete cascade;`,
    );
    this.addSql(`alter table "machine_token" add constraint "machine_token_by_id_foreign" foreign key ("by_id") references "person" ("id") on update cascade;`);
    this.addSql(
      `create table "reading" ("id" uuid not null default gen_random_uuid(), "token_id" uuid not null, "at_s" double precision not null, "at" timestamptz not null default now(), "values" jsonb not null, constraint "reading_pkey" primary key ("id"));`,
    );
    this.addSql(`create index "reading_token_index" on "reading" ("token_id", "at_s");`);
    this.addSql(
      `alter table "reading" add constraint "reading_token_id_foreign" foreign key ("token_id") references "machine_token" ("id") on update cascade on delete cascade;`,
    );
    this.addSql(`alter table "soak_log" add column "simulated" boolean not null default false;`);
    this.addSql(`alter table "shop" add column "log_columns" jsonb not null default '{}';`);
    this.addSql(`alter table "observation" add column "simulated" boolean not null default false;`);
  }

  override down(): void {
    this.addSql(`alter table "shop" drop column "log_columns";`);
    this.addSql(`alter table "observation" drop column "simulated";`);
    this.addSql(`alter table "soak_log" drop column "simulated";`);
    this.addSql(`drop table "reading";`);
    this.addSql(`drop table "machine_token";`);
  }
}
