import "server-only";
import type { z } from "zod";
import type { Action } from "../unit/action";
import { fetched } from "../unit/door";
import { BUILD } from "./data";
import type { Looked } from "./had";

/**
 * A slice over HTTP: its data as JSON, its tag as ETag, when it was looked at and how far it has seen everything in headers of their own;
 * 304 without a body where it has not moved (RFC 9110, sections 8.8.3 and 13.1.2); 401 for nobody, 404 for what there is not.
 */
export async function dataAnswer<S extends z.ZodType, T>(request: Request, question: Action<S, Looked<T>>, input: object): Promise<Response> {
  const known = /^"([\w-]{1,60})"$/.exec(request.headers.get("if-none-match") ?? "")?.[1];
  const had = await fetched(question, { ...input, ...(known ? { tag: known } : {}) });
  // Whose it is, is told by the cookie: nothing between keeps it.
  const never = { "Cache-Control": "no-store" };
  if ("status" in had) return new Response(null, { status: had.status, headers: never });
  const { tag, asOfMs, since } = had.value;
  const headers = { ...never, ETag: `"${tag}"`, "X-Imbra-As-Of": String(asOfMs), "X-Imbra-Since": since, "X-Imbra-Build": BUILD };
  return "data" in had.value ? Response.json(had.value.data, { headers }) : new Response(null, { status: 304, headers });
}
