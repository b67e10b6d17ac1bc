import { Migration } from "@mikro-orm/migrations";

/** A plan says what would let in what it leaves free. */
export class WaysIn extends Migration {
  override up(): void {
    this.addSql(`alter table "plan" add column "ways" jsonb null;`);
  }

  override down(): void {
    this.addSql(`alter table "plan" drop column "ways";`);
  }
}
