import { entityManager } from "../../../../../db";
import { failed } from "../../../../../server/failed";
import { planJob } from "../../../../../server/plan-job";
import type { PlanLine } from "../../../../../server/plan-lines";
import { planInThread } from "../../../../../server/plan-thread";
import { no } from "../../../../../server/result";
import { whoIsIt } from "../../../../../server/who";

/** Plans a job and tells how it goes, a line of JSON each; the last line is the result. Closing the connection stops the work. */
export async function POST(request: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  const { number } = await params;
  const stop = new AbortController();
  request.signal.addEventListener("abort", () => stop.abort(), { once: true });
  const lines = new TextEncoder();
  const body = new ReadableStream<Uint8Array>({
    async start(out) {
      let open = true;
      const say = (line: PlanLine) => {
        if (!open) return;
        try {
          out.enqueue(lines.encode(`${JSON.stringify(line)}\n`));
        } catch {
          open = false;
        }
      };
      try {
        const by = await whoIsIt();
        const result = by
          ? await planJob(await entityManager(), number.slice(0, 40), by, planInThread, { news: say, signal: stop.signal })
          : no("Choose who you are first, at the top right. Nothing was changed.");
        say({ kind: "end", result });
      } catch (e) {
        say({ kind: "end", result: failed(e, "No plan was stored.") });
      }
      if (open && !stop.signal.aborted) out.close();
    },
    cancel: () => stop.abort(),
  });
  return new Response(body, { headers: { "Content-Type": "application/x-ndjson", "Cache-Control": "no-store", "X-Accel-Buffering": "no" } });
}
