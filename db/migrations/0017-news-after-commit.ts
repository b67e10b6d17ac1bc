import { Migration } from "@mikro-orm/migrations";

/** News are told after the commit, by who wrote: no longer inside of every transaction. Serials are found whatever their capitals. */
export class NewsAfterCommit extends Migration {
  override up(): void {
    this.addSql(`drop trigger job_news on "job";`);
    this.addSql(`drop trigger job_head_new on "job_head";`);
    this.addSql(`drop trigger job_head_news on "job_head";`);
    this.addSql(`drop trigger shop_news on "shop";`);
    this.addSql(`drop function tell_job, tell_head, tell_shelf;`);
    this.addSql(`create index "job_part_serial_exact_index" on "job_part" (lower("serial"));`);
  }

  override down(): void {
    this.addSql(`drop index "job_part_serial_exact_index";`);
    this.addSql(`create function tell_job() returns trigger language plpgsql as $$ begin perform pg_notify('imbra', json_build_object('job', new."number", 'revision', new."revision")::text); return null; end $$`);
    this.addSql(`create trigger job_news after insert or update of "revision" on "job" for each row execute function tell_job()`);
    this.addSql(`create function tell_head() returns trigger language plpgsql as $$ begin perform pg_notify('imbra', json_build_object('head', (select "number" from "job" where "id" = new."job_id"))::text); return null; end $$`);
    this.addSql(`create trigger job_head_new after insert on "job_head" for each row execute function tell_head()`);
    this.addSql(`create trigger job_head_news after update on "job_head" for each row execute function tell_head()`);
    this.addSql(`create function tell_shelf() returns trigger language plpgsql as $$ begin perform pg_notify('imbra', json_build_object('shelf', new."shelf_revision")::text); return null; end $$`);
    this.addSql(`create trigger shop_news after update on "shop" for each row execute function tell_shelf()`);
  }
}
