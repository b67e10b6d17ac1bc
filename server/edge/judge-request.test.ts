import { describe, expect, it } from "vitest";
import { contentPolicy, judgeRequest } from "./judge-request";

const get = { method: "GET", path: "/", host: "localhost:3000", origin: null, site: null, allowed: undefined };
const post = { ...get, method: "POST", origin: "http://localhost:3000", site: "same-origin" };
const status = (asked: Parameters<typeof judgeRequest>[0]) => judgeRequest(asked)?.status;

describe("a request, before anything of it is read", () => {
  it("is answered under the shop's own names, and under no other", () => {
    for (const host of ["localhost:3000", "127.0.0.1", "[::1]:3000", "LOCALHOST:3000"])
      expect([host, status({ ...get, host })]).toEqual([host, undefined]);
    for (const host of ["evil.example", "localhost.evil.example", "", null]) expect([host, status({ ...get, host })]).toEqual([host, 421]);
    const allowed = "bench.shop.example, 10.0.0.5";
    expect(status({ ...get, host: "bench.shop.example:8443", allowed })).toBeUndefined();
    expect(status({ ...get, host: "localhost:3000", allowed })).toBe(421);
  });
  it("changes something only from a page of the shop", () => {
    expect(status(post)).toBeUndefined();
    expect(status({ ...post, origin: null, site: null })).toBeUndefined();
    for (const origin of ["http://evil.example", "http://localhost:3001", "null"])
      expect([origin, status({ ...post, origin })]).toEqual([origin, 403]);
    expect(status({ ...post, origin: null, site: "cross-site" })).toBe(403);
    expect(status({ ...get, site: "cross-site" })).toBeUndefined();
  });
  it("with a broken percent sign is a 400", () => {
    expect(status({ ...get, path: "/job/%/parts" })).toBe(400);
    expect(status({ ...get, path: "/job/FS%2D1041/parts" })).toBeUndefined();
  });
  it("gets pages that run nothing but their own scripts and are in nobody's frame", () => {
    const policy = contentPolicy("abc");
    expect(policy).toContain("script-src 'self' 'nonce-abc' 'strict-dynamic'");
    expect(/script-src[^;]*unsafe/.test(policy)).toBe(false);
    expect(policy).toContain("frame-ancestors 'none'");
  });
});
