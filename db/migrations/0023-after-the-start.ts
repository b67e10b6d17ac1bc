import { Migration } from "@mikro-orm/migrations";

/** What was set up after the first start, thing by thing, and what was measured of what was promised. */
export class AfterTheStart extends Migration {
  override up(): void {
    const by = (table: string) => {
      this.addSql(
        `alter table "${table}" add constraint "${table}_job_id_foreign" foreign key ("job_id") references "job" ("id") on update cascade on delete cascade;`,
      );
      this.addSql(`alter table "${table}" add constraint "${table}_by_id_foreign" foreign key ("by_id") references "person" ("id") on update cascade;`);
    };
    this.addSql(
      `create table "setup_done" ("id" uuid not null default gen_random_uuid(), "job_id" uuid not null, "item" text not null, "target" text not null, "before" text not null default '', "after" text not null default '', "state" text not null, "why" text not null default '', "by_id" uuid not null, "at" timestamptz not null default now(), constraint "setup_done_pkey" primary key ("id"));`,
    );
    this.addSql(`alter table "setup_done" add constraint "setup_done_job_id_item_unique" unique ("job_id", "item");`);
    by("setup_done");
    this.addSql(
      `create table "proof" ("id" uuid not null default gen_random_uuid(), "job_id" uuid not null, "about" text not null, "words" text not null, "body" jsonb not null, "by_id" uuid not null, "at" timestamptz not null default now(), constraint "proof_pkey" primary key ("id"));`,
    );
    this.addSql(`alter table "proof" add constraint "proof_job_id_about_words_unique" unique ("job_id", "about", "words");`);
    by("proof");
    this.addSql(`alter table "observation" add column "first_value" text null;`);
  }

  override down(): void {
    this.addSql(`alter table "observation" drop column "first_value";`);
    this.addSql(`drop table "proof";`);
    this.addSql(`drop table "setup_done";`);
  }
}
