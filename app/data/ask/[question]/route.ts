import { bodyAtMost } from "../../../../server/kernel/body";
import { no } from "../../../../server/kernel/result";
import { perform } from "../../../../server/unit/door";
import { ASKED, isQuestion } from "../../../../server/views/asked";

export const dynamic = "force-dynamic";

/** Nothing that may be asked is longer: the largest is a shelf's file. */
const MOST_BYTES = 5_000_000;

const said = (body: object, status = 200) => Response.json(body, { status, headers: { "Cache-Control": "no-store" } });

/** A question of a screen, its input as JSON: who asks, and may they, is looked at where actions are. */
export async function POST(request: Request, { params }: { params: Promise<{ question: string }> }): Promise<Response> {
  const { question } = await params;
  if (!isQuestion(question)) return said(no("There is no such question."), 404);
  const body = await bodyAtMost(request.body, MOST_BYTES);
  if (!body) return said(no("What was sent is larger than 5 MB. Send less at once."), 413);
  let input: unknown;
  try {
    input = JSON.parse(body.toString("utf8"));
  } catch {
    return said(no("The question was not understood."), 400);
  }
  return said(await perform<never, unknown>(ASKED[question] as never, input));
}
