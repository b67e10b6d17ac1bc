/** Whoever connects cannot say where they come from. `IMBRA_PROXY=1`: a proxy in front says it instead. */
export function trueAddress(request) {
  if (process.env.IMBRA_PROXY !== "1") delete request.headers["x-forwarded-for"];
}
