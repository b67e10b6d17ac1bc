import { Migration } from "@mikro-orm/migrations";

/** A tip's photo; what a supplier says of how soon a part can be had. */
export class BesideParts extends Migration {
  override up(): void {
    this.addSql(
      `alter table "tip" add column "photo" uuid null, add column "photo_width" int null, add column "photo_height" int null, add column "photo_bytes" int null;`,
    );
    this.addSql(`alter table "tip" add constraint "tip_photo_unique" unique ("photo");`);
    this.addSql(`alter table "job_part" add column "availability" text null;`);
  }

  override down(): void {
    this.addSql(`alter table "job_part" drop column "availability";`);
    this.addSql(`alter table "tip" drop constraint "tip_photo_unique";`);
    this.addSql(`alter table "tip" drop column "photo", drop column "photo_width", drop column "photo_height", drop column "photo_bytes";`);
  }
}
