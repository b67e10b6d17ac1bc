import { Migration } from "@mikro-orm/migrations";

/** A head that is only right for a later revision of its job too is no news: lists show the same. */
export class HeadNews extends Migration {
  override up(): void {
    this.addSql(`drop trigger job_head_news on "job_head";`);
    this.addSql(`create trigger job_head_new after insert on "job_head" for each row execute function tell_head()`);
    this.addSql(
      `create trigger job_head_news after update on "job_head" for each row when ((old."next", old."stops", old."open_faults", old."steps", old."done", old."minutes", old."leads", old."placed") is distinct from (new."next", new."stops", new."open_faults", new."steps", new."done", new."minutes", new."leads", new."placed")) execute function tell_head()`,
    );
  }

  override down(): void {
    this.addSql(`drop trigger job_head_news on "job_head";`);
    this.addSql(`drop trigger job_head_new on "job_head";`);
    this.addSql(`create trigger job_head_news after insert or update on "job_head" for each row execute function tell_head()`);
  }
}
