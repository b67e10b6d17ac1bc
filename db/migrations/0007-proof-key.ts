import { Migration } from "@mikro-orm/migrations";

/** A proved plan is known again after a restart: what it was proved for, and what was held then. */
export class ProofKey extends Migration {
  override up(): void {
    this.addSql(`alter table "plan" add column "proof_key" text not null default '', add column "held" jsonb not null default '[]';`);
  }

  override down(): void {
    this.addSql(`alter table "plan" drop column "proof_key", drop column "held";`);
  }
}
