import { Migration } from "@mikro-orm/migrations";

/** Intake, receipt and the shelf: wishes, what arrived and was tested, revisions of part types, search. */
export class Parts extends Migration {
  override up(): void {
    this.addSql(`alter table "job" add column "wishes" jsonb not null default '{}', add column "aside" jsonb not null default '[]';`);
    this.addSql(
      `alter table "job_part" add column "placing" jsonb not null default '{}', add column "supplier" varchar(255) null, add column "arrived_at" timestamptz null, add column "warranty_until" date null, add column "test_result" varchar(255) null, add column "tested_with" varchar(255) null, add column "type_revision" int not null default 1;`,
    );
    this.addSql(
      `create table "shelf_revision" ("id" serial primary key, "type" varchar(255) not null, "revision" int not null, "body" jsonb not null, "by_id" uuid not null, "at" timestamptz not null default now(), "because" text not null default '');`,
    );
    this.addSql(`alter table "shelf_revision" add constraint "shelf_revision_type_revision_unique" unique ("type", "revision");`);
    this.addSql(
      `alter table "shelf_revision" add constraint "shelf_revision_by_id_foreign" foreign key ("by_id") references "technician" ("id") on update cascade;`,
    );
    this.addSql(`create extension if not exists pg_trgm;`);
    this.addSql(
      `create index "shelf_type_search_index" on "shelf_type" using gin ((lower("maker" || ' ' || "name" || ' ' || "id" || ' ' || "kind")) gin_trgm_ops);`,
    );
    this.addSql(`create index "shelf_type_name_index" on "shelf_type" ("name", "id");`);
    this.addSql(`create index "job_part_type_index" on "job_part" ("type");`);
  }

  override down(): void {
    this.addSql(`drop index if exists "job_part_type_index"; drop index if exists "shelf_type_search_index"; drop index if exists "shelf_type_name_index"; drop table if exists "shelf_revision";`);
    this.addSql(
      `alter table "job_part" drop column "placing", drop column "supplier", drop column "arrived_at", drop column "warranty_until", drop column "test_result", drop column "tested_with", drop column "type_revision";`,
    );
    this.addSql(`alter table "job" drop column "wishes", drop column "aside";`);
  }
}
