import { type NextRequest, NextResponse } from "next/server";
import { contentPolicy, judgeRequest } from "./server/edge/judge-request";

/** Every request first: is it addressed to this shop, and does it come from one of its own pages? */
export function proxy(request: NextRequest): NextResponse {
  const refused = judgeRequest({
    method: request.method,
    path: request.nextUrl.pathname,
    host: request.headers.get("host"),
    origin: request.headers.get("origin"),
    site: request.headers.get("sec-fetch-site"),
    allowed: process.env.IMBRA_HOSTS,
  });
  if (refused) return new NextResponse(refused.sentence, { status: refused.status, headers: { "Content-Type": "text/plain; charset=utf-8" } });
  const nonce = btoa(crypto.randomUUID());
  const policy = contentPolicy(nonce);
  const headers = new Headers(request.headers);
  headers.set("x-nonce", nonce);
  headers.set("x-imbra-path", request.nextUrl.pathname + request.nextUrl.search);
  headers.set("content-security-policy", policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set("content-security-policy", policy);
  return response;
}

export const config = { matcher: [{ source: "/((?!_next/static|_next/image).*)" }] };
