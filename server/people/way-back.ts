/** Where somebody goes who signed in: to a page of this shop, never to another address, however it is written (CWE-601). */
export function wayBack(to: unknown): string {
  // A browser drops blanks and takes a backslash for a slash: what looks like a path may be a host.
  return typeof to === "string" && to.length < 500 && /^\/(?![/\\])[\x21-\x5b\x5d-\x7e]*$/.test(to) ? to : "/";
}
