import { Migration } from "@mikro-orm/migrations";

/** A machine that was handed over comes back: the job of its service knows the job that it was built or last served in. */
export class ComesBack extends Migration {
  override up(): void {
    this.addSql(`alter table "job" add column "service_of_id" uuid null;`);
    this.addSql(
      `alter table "job" add constraint "job_service_of_id_foreign" foreign key ("service_of_id") references "job" ("id") on update cascade on delete set null;`,
    );
    this.addSql(`create index "job_service_of_index" on "job" ("service_of_id") where "service_of_id" is not null;`);
  }

  override down(): void {
    this.addSql(`alter table "job" drop column "service_of_id";`);
  }
}
