import type { Fix, ListRow, ReadList } from "../../core/intake";
import { besideThis } from "../kernel/thread";
import type { Beside, MailRead } from "./mail-read";

/** Somebody's browser asks in a loop where more wait. */
const BOUNDS = { mostWaiting: 12, mostMs: 30_000, idleMs: 120_000 };

const beside = <Said>(asked: Beside): Promise<Said | undefined> => besideThis<Beside, Said>("list-thread", asked, BOUNDS);
const url = () => process.env.DATABASE_URL ?? "";

/** Rows of a list against the shelf, in a thread, so that no page waits for it; undefined: too many wait already. */
export const readListBeside = (rows: ListRow[]): Promise<ReadList | undefined> => beside<ReadList>({ url: url(), rows });

/** A mail against the shelf, in the same thread; undefined: too many wait already. */
export const readMailBeside = (text: string, fixes: Fix[], today: string): Promise<MailRead | undefined> =>
  beside<MailRead>({ url: url(), text, fixes, today });
