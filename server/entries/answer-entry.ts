import type { IncomingMessage, ServerResponse } from "node:http";
import { judgeRequest } from "../edge/judge-request";
import { bodyAtMost } from "../kernel/body";
import { no, type Result } from "../kernel/result";
import { seatIn } from "../kernel/seat";
import { MOST_ENTRY_BYTES, takeEntry } from "./take-entry";

const asOne = (header: string | string[] | undefined): string | null => (Array.isArray(header) ? header.join() : (header ?? null));

/** Does this request bring an entry of a bench? */
export const bringsEntry = (req: IncomingMessage): boolean => req.method === "POST" && req.url === "/entries";

/**
 * Answers an entry beside the framework, which takes several times as long to come to it as it takes to be kept. The same is judged as
 * of every other request, by the same functions.
 */
export async function answerEntry(req: IncomingMessage, res: ServerResponse): Promise<void> {
  const refused = judgeRequest({
    method: "POST",
    path: "/entries",
    host: asOne(req.headers.host),
    origin: asOne(req.headers.origin),
    site: asOne(req.headers["sec-fetch-site"]),
    allowed: process.env.IMBRA_HOSTS,
  });
  if (refused) return end(res, refused.status, "text/plain; charset=utf-8", refused.sentence);
  let answer: { status: number; body: Result };
  try {
    const text = await bodyAtMost(req.iterator({ destroyOnReturn: false }), MOST_ENTRY_BYTES);
    answer = await takeEntry(text, (anew) => seatIn(req.headers.cookie, anew));
  } catch (e) {
    // Whoever sent it went away in the middle, or something is wrong with the server: the entry stays where it was.
    console.error(e);
    answer = { status: 500, body: no("The server failed at this and wrote why into its log. Nothing was changed.") };
  }
  end(res, answer.status, "application/json", JSON.stringify(answer.body));
}

function end(res: ServerResponse, status: number, type: string, text: string): void {
  const length = Buffer.byteLength(text);
  // The rest of a body that was too long is not waited for.
  if (status >= 400) res.setHeader("Connection", "close");
  res
    .writeHead(status, { "Content-Type": type, "Content-Length": length, "Cache-Control": "no-store", "X-Content-Type-Options": "nosniff" })
    .end(text);
}
