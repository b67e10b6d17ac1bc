import type { Build } from "../../core/assembly";
import type { PartType } from "../../core/catalogue";
import type { Fix, ListRow, Mail } from "../../core/intake";

/** A mail read, corrected, and the build that it makes, with the whole part types of the shelf that it names. */
export interface MailRead {
  mail: Mail;
  build: Build;
  /** Part types made from words. */
  made: PartType[];
  known: PartType[];
  /** Which parts each line became. */
  parts: [line: number, ids: string[]][];
}

/** What the list thread is asked. */
export type Beside = { url: string; rows: ListRow[] } | { url: string; text: string; fixes: Fix[]; today: string };
