const WHY = { 401: "Sign in first, then ask for this again.", 404: "There is no such file." } as const;

/** The answer of a file that is not to be had. */
export const notHere = (status: 401 | 404): Response =>
  new Response(WHY[status], { status, headers: { "Content-Type": "text/plain; charset=utf-8", "Cache-Control": "no-store" } });
