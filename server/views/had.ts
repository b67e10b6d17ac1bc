/** What a screen shows, as it was had at one moment. */
export interface Had<T> {
  data: T;
  /** When the server looked, by its clock, ms since 1970: of two, the later counts. */
  asOfMs: number;
  /** Of which revision it is: asked with it, what has not moved is not sent again. */
  tag: string;
  /** How far it has seen everything: what came after this is told by the stream (server/live/since.ts). */
  since: string;
}

/** The same, or that nothing has moved since the tag that it was asked with. */
export type Looked<T> = Had<T> | Omit<Had<T>, "data">;
