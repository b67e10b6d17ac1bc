/** What of a request decides whether it is answered at all. */
export interface Asked {
  method: string;
  path: string;
  host: string | null;
  origin: string | null;
  /** `sec-fetch-site`, as browsers send it. */
  site: string | null;
  /** The hosts that the shop answers to, by commas; left out: this machine's own names. */
  allowed: string | undefined;
}

const OWN = ["localhost", "127.0.0.1", "[::1]"];

/** Host names without ports, in small letters. */
const nameOf = (host: string) => host.toLowerCase().replace(/:\d+$/, "");

/**
 * Why a request is refused, or nothing. An unknown host name is somebody else's name for this address (DNS rebinding, OWASP); what
 * changes something has to come from a page of the shop (CWE-352).
 */
export function judgeRequest({ method, path, host, origin, site, allowed }: Asked): { status: number; sentence: string } | undefined {
  const hosts = (allowed ?? OWN.join()).split(",").map((h) => nameOf(h.trim()));
  if (host === null || !hosts.includes(nameOf(host)))
    return { status: 421, sentence: "This server does not answer to that name. Whoever keeps it lists its names in IMBRA_HOSTS." };
  try {
    decodeURIComponent(path);
  } catch {
    return { status: 400, sentence: "The address is broken: a percent sign in it has to be followed by two digits." };
  }
  if (method === "GET" || method === "HEAD") return undefined;
  const own = origin === null ? site === null || site === "same-origin" || site === "none" : sameHost(origin, host);
  return own ? undefined : { status: 403, sentence: "This came from a page that is not of this shop. Nothing was changed." };
}

function sameHost(origin: string, host: string): boolean {
  try {
    return new URL(origin).host.toLowerCase() === host.toLowerCase();
  } catch {
    return false;
  }
}

/** What a page may load and run (W3C Content Security Policy Level 3): its own scripts by nonce, nothing of others, in nobody's frame. */
export const contentPolicy = (nonce: string): string =>
  [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'self'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");
