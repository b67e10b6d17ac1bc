import { Migration } from "@mikro-orm/migrations";

/** What the shop lent to a machine, what is sealed with its job, and what runs by itself. */
export class OnLoan extends Migration {
  override up(): void {
    const of = (table: string, by: readonly string[]) => {
      this.addSql(`create index "${table}_job_index" on "${table}" ("job_id", "at");`);
      this.addSql(
        `alter table "${table}" add constraint "${table}_job_id_foreign" foreign key ("job_id") references "job" ("id") on update cascade on delete cascade;`,
      );
      for (const who of by)
        this.addSql(
          `alter table "${table}" add constraint "${table}_${who}_id_foreign" foreign key ("${who}_id") references "person" ("id") on update cascade${who === "by" ? "" : " on delete set null"};`,
        );
    };
    this.addSql(`alter table "soak_log" add column "conditions" text not null default '';`);
    this.addSql(
      `create table "loan" ("id" uuid not null default gen_random_uuid(), "job_id" uuid not null, "what" text not null, "owner" text not null, "serial" text not null default '', "by_id" uuid not null, "at" timestamptz not null default now(), "back_at" timestamptz null, "back_by_id" uuid null, constraint "loan_pkey" primary key ("id"));`,
    );
    of("loan", ["by", "back_by"]);
    this.addSql(
      `create table "secret" ("id" uuid not null default gen_random_uuid(), "job_id" uuid not null, "what" text not null, "sealed" text null, "by_id" uuid not null, "at" timestamptz not null default now(), "shown_at" timestamptz null, "shown_to_id" uuid null, constraint "secret_pkey" primary key ("id"));`,
    );
    of("secret", ["by", "shown_to"]);
    this.addSql(
      `create table "by_itself" ("id" uuid not null default gen_random_uuid(), "job_id" uuid not null, "what" text not null, "minutes" int not null, "by_id" uuid not null, "at" timestamptz not null default now(), "seen_at" timestamptz null, constraint "by_itself_pkey" primary key ("id"));`,
    );
    of("by_itself", ["by"]);
  }

  override down(): void {
    this.addSql(`alter table "soak_log" drop column "conditions";`);
    for (const table of ["by_itself", "secret", "loan"]) this.addSql(`drop table "${table}";`);
  }
}
