import { Migration } from "@mikro-orm/migrations";

/** What the shop sets once for all jobs; what was ordered, and what is known of a piece; offers and who accepted them; tips and photos of part types. */
export class ShopAndOffer extends Migration {
  override up(): void {
    this.addSql(`alter table "shop" add column "defaults" jsonb not null default '{}';`);
    this.addSql(
      `alter table "job_part" add column "price_from" text null, add column "price_on" date null, add column "ordered_on" date null, add column "expected_on" date null, add column "facts" jsonb not null default '{}';`,
    );
    this.addSql(
      `create table "offer" ("id" uuid not null default gen_random_uuid(), "job_id" uuid not null, "count" int not null, "body" jsonb not null, "by_id" uuid not null, "at" timestamptz not null default now(), "accepted_by" text null, "accepted_on" date null, "accepted_told_by_id" uuid null, constraint "offer_pkey" primary key ("id"));`,
    );
    this.addSql(`alter table "offer" add constraint "offer_job_id_count_unique" unique ("job_id", "count");`);
    this.addSql(
      `alter table "offer" add constraint "offer_job_id_foreign" foreign key ("job_id") references "job" ("id") on update cascade on delete cascade;`,
    );
    this.addSql(`alter table "offer" add constraint "offer_by_id_foreign" foreign key ("by_id") references "person" ("id") on update cascade;`);
    this.addSql(
      `alter table "offer" add constraint "offer_accepted_told_by_id_foreign" foreign key ("accepted_told_by_id") references "person" ("id") on update cascade on delete set null;`,
    );
    this.addSql(
      `create table "tip" ("id" uuid not null default gen_random_uuid(), "type" varchar(255) not null, "step" varchar(255) null, "words" text not null, "by_id" uuid not null, "at" timestamptz not null default now(), "still_so_at" timestamptz null, "still_so_by_id" uuid null, "withdrawn_at" timestamptz null, constraint "tip_pkey" primary key ("id"));`,
    );
    this.addSql(`create index "tip_type_index" on "tip" ("type");`);
    this.addSql(`alter table "tip" add constraint "tip_by_id_foreign" foreign key ("by_id") references "person" ("id") on update cascade;`);
    this.addSql(
      `alter table "tip" add constraint "tip_still_so_by_id_foreign" foreign key ("still_so_by_id") references "person" ("id") on update cascade on delete set null;`,
    );
    this.addSql(
      `create table "type_photo" ("id" uuid not null default gen_random_uuid(), "type" varchar(255) not null, "width" int not null, "height" int not null, "bytes" int not null, "taps" jsonb not null default '[]', "by_id" uuid not null, "at" timestamptz not null default now(), constraint "type_photo_pkey" primary key ("id"));`,
    );
    this.addSql(`alter table "type_photo" add constraint "type_photo_type_unique" unique ("type");`);
    this.addSql(`alter table "type_photo" add constraint "type_photo_by_id_foreign" foreign key ("by_id") references "person" ("id") on update cascade;`);
  }

  override down(): void {
    this.addSql(`drop table "type_photo";`);
    this.addSql(`drop table "tip";`);
    this.addSql(`drop table "offer";`);
    this.addSql(
      `alter table "job_part" drop column "price_from", drop column "price_on", drop column "ordered_on", drop column "expected_on", drop column "facts";`,
    );
    this.addSql(`alter table "shop" drop column "defaults";`);
  }
}
