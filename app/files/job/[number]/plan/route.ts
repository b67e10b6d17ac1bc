import { notHere } from "../../../../../server/documents/not-here";
import { whoIsIt } from "../../../../../server/kernel/who";
import type { PlanLine } from "../../../../../server/plan/plan-lines";
import { followWatched, planWatched } from "../../../../../server/planner/runs";
import { perform } from "../../../../../server/unit/door";
import { isPlanning } from "../../../../../server/views/job-page";

type At = { params: Promise<{ number: string }> };
type Watched = typeof planWatched;

/** Tells how a plan goes, a line of JSON each; the last line is the result. Closing the connection ends the telling, not the work. */
function told(request: Request, number: string, watched: Watched): Response {
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
      say({ kind: "end", result: await perform(watched(say, gone.signal), { number }) });
      if (!gone.signal.aborted) out.close();
    },
    cancel: () => gone.abort(),
  });
  return new Response(body, { headers: { "Content-Type": "application/x-ndjson", "Cache-Control": "no-store", "X-Accel-Buffering": "no" } });
}

/** Asks for a plan of a job and tells how it goes; one that is asked for already is followed. */
export async function POST(request: Request, { params }: At): Promise<Response> {
  if (!(await whoIsIt())) return notHere(401);
  return told(request, (await params).number, planWatched);
}

/** Tells how the plan goes that somebody asked for; 204 where none is being made. */
export async function GET(request: Request, { params }: At): Promise<Response> {
  const { number } = await params;
  if (!(await whoIsIt())) return notHere(401);
  return (await isPlanning(number)) ? told(request, number, followWatched) : new Response(null, { status: 204 });
}
