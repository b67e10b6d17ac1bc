import { Migration } from "@mikro-orm/migrations";

/** Photos of a job, on a step or a part; the pictures themselves are in the photo store, under the id. */
export class Photos extends Migration {
  override up(): void {
    this.addSql(
      `create table "photo" ("id" uuid not null default gen_random_uuid(), "job_id" uuid not null, "step" varchar(255) null, "part" varchar(255) null, "width" int not null, "height" int not null, "bytes" int not null, "at" timestamptz not null default now(), "by_id" uuid not null, constraint "photo_pkey" primary key ("id"));`,
    );
    this.addSql(`create index "photo_job_index" on "photo" ("job_id", "at");`);
    this.addSql(`alter table "photo" add constraint "photo_job_id_foreign" foreign key ("job_id") references "job" ("id") on update cascade on delete cascade;`);
    this.addSql(`alter table "photo" add constraint "photo_by_id_foreign" foreign key ("by_id") references "person" ("id") on update cascade;`);
  }

  override down(): void {
    this.addSql(`drop table "photo";`);
  }
}
