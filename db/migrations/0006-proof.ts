import { Migration } from "@mikro-orm/migrations";

/** A plan that is not proved to its end says how far it is. */
export class Proof extends Migration {
  override up(): void {
    this.addSql(`alter table "plan" add column "proof" text not null default '';`);
  }

  override down(): void {
    this.addSql(`alter table "plan" drop column "proof";`);
  }
}
