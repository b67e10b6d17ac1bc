import { dataAnswer } from "../../../../../server/views/answer";
import { jobSlice } from "../../../../../server/views/data";

export const dynamic = "force-dynamic";

/** A slice of a job: JSON, and 304 where it has not moved since the tag in If-None-Match. */
export async function GET(request: Request, { params }: { params: Promise<{ number: string; slice: string }> }): Promise<Response> {
  return dataAnswer(request, jobSlice, await params);
}
