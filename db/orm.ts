import { MikroORM } from "@mikro-orm/postgresql";
import { AfterCommit } from "./after-commit";
import { ENTITIES } from "./entities";

export function ormConfig(url: string) {
  return {
    clientUrl: url,
    entities: ENTITIES,
    subscribers: [new AfterCommit()],
    discovery: { disableDynamicFileAccess: true },
    pool: { min: 0, max: 10 },
    // One held row does not stop other pages: who waits for it for long is told to try again.
    driverOptions: { connection: { options: "-c lock_timeout=5000 -c idle_in_transaction_session_timeout=30000" } },
  };
}

const holder = globalThis as typeof globalThis & { imbraOrm?: Promise<MikroORM> | undefined };

/** One ORM a process; an entity manager of its own for every request. */
export async function entityManager() {
  holder.imbraOrm ??= MikroORM.init(ormConfig(databaseUrl())).catch((e: unknown) => {
    // The next request tries anew.
    holder.imbraOrm = undefined;
    throw e;
  });
  return (await holder.imbraOrm).em.fork();
}

export type EntityManager = Awaited<ReturnType<typeof entityManager>>;

function databaseUrl(): string {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error("DATABASE_URL is not set. Start Imbra with npm start, which sets it.");
  return url;
}
