import { dataAnswer } from "../../../server/views/answer";
import { benchesSlice } from "../../../server/views/data";

export const dynamic = "force-dynamic";

/** What Benches shows: JSON, and 304 where it has not moved since the tag in If-None-Match. */
export const GET = (request: Request): Promise<Response> => dataAnswer(request, benchesSlice, {});
