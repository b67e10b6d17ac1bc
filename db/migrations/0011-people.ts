import { Migration } from "@mikro-orm/migrations";

/** People sign in: passwords and PINs as hashes, sessions, whose turn it was at a device, wrong attempts, and what happened in the shop. */
export class People extends Migration {
  override up(): void {
    this.addSql(`alter table "technician" rename to "person";`);
    this.addSql(`alter table "person" rename constraint "technician_pkey" to "person_pkey";`);
    this.addSql(`alter table "person" rename constraint "technician_name_unique" to "person_name_unique";`);
    this.addSql(`alter table "person" add column "active" boolean not null default true;`);
    this.addSql(`create table "credential" ("person_id" uuid not null, "password_hash" text null, "pin_hash" text null, constraint "credential_pkey" primary key ("person_id"));`);
    this.addSql(`alter table "credential" add constraint "credential_person_id_foreign" foreign key ("person_id") references "person" ("id") on update cascade on delete cascade;`);
    this.addSql(`alter table "shop" add column "bench_lock_minutes" int not null default 15;`);
    this.addSql(`create table "session" ("id" uuid not null default gen_random_uuid(), "token_hash" varchar(64) not null, "device" uuid not null, "person_id" uuid not null, "by_pin" boolean not null default false, "label" varchar(80) not null, "started_at" timestamptz not null default now(), "seen_at" timestamptz not null default now(), "acted_at" timestamptz not null default now(), "ended_at" timestamptz null, constraint "session_pkey" primary key ("id"), constraint "session_token_hash_unique" unique ("token_hash"));`);
    this.addSql(`alter table "session" add constraint "session_person_id_foreign" foreign key ("person_id") references "person" ("id") on update cascade;`);
    this.addSql(`create index "session_person_index" on "session" ("person_id", "ended_at");`);
    // Who has worked at a device: an entry that waited on it may be theirs.
    this.addSql(`create table "turn" ("device" uuid not null, "person_id" uuid not null, "since" timestamptz not null default now(), constraint "turn_pkey" primary key ("device", "person_id"));`);
    this.addSql(`alter table "turn" add constraint "turn_person_id_foreign" foreign key ("person_id") references "person" ("id") on update cascade;`);
    this.addSql(`create table "attempt" ("key" varchar(255) not null, "points" int not null default 0, "expire" bigint null, constraint "attempt_pkey" primary key ("key"));`);
    this.addSql(`create table "shop_log" ("id" serial primary key, "at" timestamptz not null default now(), "by_id" uuid not null, "kind" varchar(255) not null, "data" jsonb not null);`);
    this.addSql(`alter table "shop_log" add constraint "shop_log_by_id_foreign" foreign key ("by_id") references "person" ("id") on update cascade;`);
    this.addSql(`create trigger shop_log_append_only before update or delete on "shop_log" for each row execute function refuse_log_change()`);
    this.addSql(`create trigger shop_log_never_emptied before truncate on "shop_log" for each statement execute function refuse_log_change()`);
  }

  override down(): void {
    this.addSql(`drop table "shop_log", "attempt", "turn", "session", "credential";`);
    this.addSql(`alter table "shop" drop column "bench_lock_minutes";`);
    this.addSql(`alter table "person" drop column "active";`);
    this.addSql(`alter table "person" rename constraint "person_pkey" to "technician_pkey";`);
    this.addSql(`alter table "person" rename constraint "person_name_unique" to "technician_name_unique";`);
    this.addSql(`alter table "person" rename to "technician";`);
  }
}
