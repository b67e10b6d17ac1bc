import { Migration } from "@mikro-orm/migrations";

/** Turns at a device begin and end, a sign-in keeps who opened it, wrong tries are counted with the wait that follows, and what nobody signed in did is told too. */
export class Turns extends Migration {
  override up(): void {
    // What was kept before said only that somebody was at a device once.
    this.addSql(`drop table "turn";`);
    this.addSql(
      `create table "turn" ("id" uuid not null default gen_random_uuid(), "device" uuid not null, "session_id" uuid not null, "person_id" uuid not null, "by_pin" boolean not null default false, "began_at" timestamptz not null default now(), "ended_at" timestamptz null, "ended_by" varchar(20) null, constraint "turn_pkey" primary key ("id"));`,
    );
    this.addSql(`alter table "turn" add constraint "turn_session_id_foreign" foreign key ("session_id") references "session" ("id") on update cascade on delete cascade;`);
    this.addSql(`alter table "turn" add constraint "turn_person_id_foreign" foreign key ("person_id") references "person" ("id") on update cascade;`);
    this.addSql(`create unique index "turn_open_unique" on "turn" ("session_id") where "ended_at" is null;`);
    this.addSql(`create index "turn_device_index" on "turn" ("device", "person_id");`);
    this.addSql(`alter table "session" add column "opened_by_id" uuid null;`);
    this.addSql(`update "session" set "opened_by_id" = "person_id";`);
    this.addSql(`alter table "session" alter column "opened_by_id" set not null;`);
    this.addSql(`alter table "session" add constraint "session_opened_by_id_foreign" foreign key ("opened_by_id") references "person" ("id") on update cascade;`);
    this.addSql(`create index "session_opened_index" on "session" ("opened_by_id", "device");`);
    this.addSql(
      `insert into "turn" ("device", "session_id", "person_id", "by_pin", "began_at") select "device", "id", "person_id", "by_pin", "started_at" from "session" where "ended_at" is null;`,
    );
    this.addSql(`create table "wrong_try" ("key" varchar(255) not null, "count" int not null, "since" timestamptz not null, "until" timestamptz not null, constraint "wrong_try_pkey" primary key ("key"));`);
    this.addSql(`alter table "shop_log" alter column "by_id" drop not null;`);
    this.addSql(`alter table "shop_log" drop constraint "shop_log_by_id_foreign";`);
    this.addSql(`alter table "shop_log" add constraint "shop_log_by_id_foreign" foreign key ("by_id") references "person" ("id") on update cascade on delete set null;`);
  }

  override down(): void {
    this.addSql(`drop table "wrong_try";`);
    this.addSql(`alter table "session" drop column "opened_by_id";`);
    this.addSql(`drop table "turn";`);
    this.addSql(`create table "turn" ("device" uuid not null, "person_id" uuid not null, "since" timestamptz not null default now(), constraint "turn_pkey" primary key ("device", "person_id"));`);
    this.addSql(`alter table "turn" add constraint "turn_person_id_foreign" foreign key ("person_id") references "person" ("id") on update cascade;`);
  }
}
