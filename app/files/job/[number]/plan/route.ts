import { perform } from "../../../../../server/kernel/door";
import type { PlanLine } from "../../../../../server/plan/plan-lines";
import { planWatched } from "../../../../../server/planner/runs";

/**
 * Asks for a plan of a job and tells how it goes, a line of JSON each; the last line is the result. What is asked for already is
 * followed. Closing the connection ends the telling, not the work.
 */
export async function POST(request: Request, { params }: { params: Promise<{ number: string }> }): Promise<Response> {
  const { number } = await params;
  const gone = new AbortController();
  request.signal.addEventListener("abort", () => gone.abort(), { once: true });
  const lines = new TextEncoder();
  const body = new ReadableStream<Uint8Array>({
    async start(out) {
      const say = (line: PlanLine) => {
        if (gone.signal.aborted) return;
        try {
          out.enqueue(lines.encode(`${JSON.stringify(line)}\n`));
        } catch {
          gone.abort();
        }
      };
      say({ kind: "end", result: await perform(planWatched(say, gone.signal), { number }) });
      if (!gone.signal.aborted) out.close();
    },
    cancel: () => gone.abort(),
  });
  return new Response(body, { headers: { "Content-Type": "application/x-ndjson", "Cache-Control": "no-store", "X-Accel-Buffering": "no" } });
}
