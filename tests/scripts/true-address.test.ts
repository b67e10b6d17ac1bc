import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { afterEach, describe, expect, it, vi } from "vitest";
import { trueAddress } from "../../scripts/true-address.mjs";

/** What a server sees as X-Forwarded-For when somebody claims to come from elsewhere. */
async function seen(): Promise<string> {
  const server = createServer((req, res) => {
    trueAddress(req);
    res.end(String(req.headers["x-forwarded-for"]));
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  const answer = await fetch(`http://127.0.0.1:${(server.address() as AddressInfo).port}/`, { headers: { "x-forwarded-for": "203.0.113.9" } });
  const text = await answer.text();
  server.close();
  return text;
}

afterEach(() => vi.unstubAllEnvs());

describe("where a request comes from", () => {
  it("is not what it says itself, unless a proxy is in front", async () => {
    vi.stubEnv("IMBRA_PROXY", "");
    expect(await seen()).toBe("undefined");
    vi.stubEnv("IMBRA_PROXY", "1");
    expect(await seen()).toBe("203.0.113.9");
  });
});
