import { experimental_createQueryPersister } from "@tanstack/query-persist-client-core";
import { hashKey, type QueryClient } from "@tanstack/react-query";
import Dexie, { type EntityTable } from "dexie";
import type { Had } from "../../server/views/had";
import { later, SLICE, type SliceKey, sliceClient } from "./slice-client";

/** What is too old is looked for so long after a page was opened. */
const TIDY_MS = 5000;

/** No page is opened without a network with what is older. */
const KEPT_MS = 3 * 86_400_000;

type Stored = Parameters<NonNullable<Parameters<typeof experimental_createQueryPersister>[0]["serialize"]>>[0];

const db = new Dexie("imbra-slices") as Dexie & { kept: EntityTable<{ key: string; value: Stored }, "key"> };
db.version(1).stores({ kept: "key" });

const persister = experimental_createQueryPersister<Stored>({
  storage: {
    getItem: async (key) => (await db.kept.get(key))?.value,
    setItem: (key, value) => db.kept.put({ key, value }),
    removeItem: (key) => db.kept.delete(key),
    entries: async () => (await db.kept.toArray()).map(({ key, value }) => [key, value]),
  },
  // Objects as they are: the store takes them.
  serialize: (query) => query,
  deserialize: (query) => query,
  buster: process.env.IMBRA_BUILD ?? "",
  maxAge: KEPT_MS,
  prefix: SLICE,
});

/** What this device kept of a slice, where it is later than what is shown. A browser that keeps nothing has nothing. */
export async function takeKept<T>(client: QueryClient, key: SliceKey): Promise<void> {
  const kept = await persister.retrieveQuery<Had<T>>(hashKey(key)).catch(() => undefined);
  const there = client.getQueryData<Had<T>>(key);
  if (kept && later(there, kept) === kept) client.setQueryData(key, kept);
  // What is too old goes, once nobody waits for it.
  setTimeout(() => void persister.persisterGc().catch(() => undefined), TIDY_MS);
}

/** Keeps a slice as it is shown now. */
export const putKept = (client: QueryClient, key: SliceKey): Promise<void> => persister.persistQueryByKey(key, client).catch(() => undefined);

/** Whoever sits here next sees nothing of it. */
export async function forgetSlices(): Promise<void> {
  sliceClient().removeQueries({ queryKey: [SLICE], type: "inactive" });
  await db.kept.clear().catch(() => undefined);
}
