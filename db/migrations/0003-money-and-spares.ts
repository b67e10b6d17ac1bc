import { Migration } from "@mikro-orm/migrations";

/** What a part cost, and known-good spares that are kept for testing, apart from stock. */
export class MoneyAndSpares extends Migration {
  override up(): void {
    this.addSql(`alter table "job_part" add column "price_cents" int null;`);
    this.addSql(`alter table "shelf_type" add column "spares" int not null default 0;`);
  }

  override down(): void {
    this.addSql(`alter table "job_part" drop column "price_cents";`);
    this.addSql(`alter table "shelf_type" drop column "spares";`);
  }
}
