import { hearing, hears, listen, type News, whenEnding } from "./channel";

/** Open streams of one process; more are told to come again later. */
const MOST_STREAMS = 500;
/** Of one sign-in: tabs that are looked at, with some to spare. */
const MOST_OF_ONE = 12;
/** A beat now and then, as long as this server hears of changes itself: who gets none knows that news may be missed, whatever the network says. */
const BEAT_MS = 5000;
/** Beats between two looks whether the sign-in still holds. */
const ASK_EVERY = 4;

const BEAT = "event: beat\ndata:\n\n";

let open = 0;
const openOf = new Map<string, number>();

/** Does somebody who looks at this job (or at none) want to know? */
const concerns = (job: string | undefined) => (n: News) =>
  "again" in n || (job === undefined ? "job" in n || "head" in n || "shelf" in n : ("job" in n && n.job === job) || "shelf" in n);

/**
 * Server-sent events: a line for each change that concerns a job, or for any where none is named. `missed` tells whether something changed
 * between the page and the moment from which this server hears for it. Ends with `signal` or the sign-in.
 */
export function newsStream(
  job: string | undefined,
  session: string,
  signal: AbortSignal,
  stillThere: () => Promise<boolean>,
  missed: () => Promise<boolean>,
): Response {
  if (open >= MOST_STREAMS) return new Response("Too many listen already. Try again.", { status: 503, headers: { "Retry-After": "10" } });
  if ((openOf.get(session) ?? 0) >= MOST_OF_ONE)
    return new Response("This sign-in listens in many places already. Close some.", { status: 429, headers: { "Retry-After": "30" } });
  const wanted = concerns(job);
  const lines = new TextEncoder();
  open += 1;
  openOf.set(session, (openOf.get(session) ?? 0) + 1);
  let close = () => {};
  const body = new ReadableStream<Uint8Array>({
    start(out) {
      let ended = false;
      const say = (text: string) => {
        if (ended) return;
        try {
          out.enqueue(lines.encode(text));
        } catch {
          close();
        }
      };
      const deaf = listen((n) => {
        if (wanted(n)) say(`data: ${JSON.stringify(n)}\n\n`);
      });
      let beats = 0;
      const beat = setInterval(async () => {
        // A sign-in that was ended hears no more. What cannot be asked now is asked with a later beat.
        if (++beats % ASK_EVERY === 0 && !(await stillThere().catch(() => true))) close();
        else if (hears()) say(BEAT);
      }, BEAT_MS);
      close = () => {
        if (ended) return;
        ended = true;
        open -= 1;
        const left = (openOf.get(session) ?? 1) - 1;
        if (left > 0) openOf.set(session, left);
        else openOf.delete(session);
        clearInterval(beat);
        deaf();
        stays();
        try {
          out.close();
        } catch {
          // The other side is gone already.
        }
      };
      const stays = whenEnding(close);
      signal.addEventListener("abort", close, { once: true });
      say("retry: 2000\n\n");
      hearing()
        // What cannot be asked may have changed.
        .then(() => missed().catch(() => true))
        .then((something) => say(something ? `data: ${JSON.stringify({ again: true } satisfies News)}\n\n` : BEAT));
    },
    cancel: () => close(),
  });
  return new Response(body, {
    headers: { "Content-Type": "text/event-stream", "Cache-Control": "no-store", Connection: "keep-alive", "X-Accel-Buffering": "no" },
  });
}
