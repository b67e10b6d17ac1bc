import { Migration } from "@mikro-orm/migrations";

/** A page of a machine for its client's eyes, by an address that nobody guesses; the database has only the hash of what proves it. */
export class ClientPages extends Migration {
  override up(): void {
    this.addSql(
      `create table "client_page" ("id" uuid not null default gen_random_uuid(), "job_id" uuid not null, "token_hash" text not null, "by_id" uuid not null, "at" timestamptz not null default now(), "withdrawn_at" timestamptz null, constraint "client_page_pkey" primary key ("id"));`,
    );
    this.addSql(`alter table "client_page" add constraint "client_page_token_hash_unique" unique ("token_hash");`);
    this.addSql(`create index "client_page_job_index" on "client_page" ("job_id", "at");`);
    this.addSql(
      `alter table "client_page" add constraint "client_page_job_id_foreign" foreign key ("job_id") references "job" ("id") on update cascade on delete cascade;`,
    );
    this.addSql(
      `alter table "client_page" add constraint "client_page_by_id_foreign" foreign key ("by_id") references "person" ("id") on update cascade;`,
    );
  }

  override down(): void {
    this.addSql(`drop table "client_page";`);
  }
}
