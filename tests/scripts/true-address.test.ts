import { spawn } from "node:child_process";
import { describe, expect, it } from "vitest";

/** What a server sees as X-Forwarded-For when somebody claims to come from elsewhere. */
const seen = (env: Record<string, string>) =>
  new Promise<string>((resolve, reject) => {
    const code = `require("node:http").createServer((q, s) => s.end(String(q.headers["x-forwarded-for"]))).listen(0, "127.0.0.1", function () { console.log(this.address().port); })`;
    const child = spawn(process.execPath, ["--require", "./scripts/true-address.cjs", "-e", code], { env: { ...process.env, ...env } });
    child.once("error", reject);
    child.stdout.once("data", async (port) => {
      const answer = await fetch(`http://127.0.0.1:${String(port).trim()}/`, { headers: { "x-forwarded-for": "203.0.113.9" } });
      resolve(await answer.text());
      child.kill();
    });
  });

describe("where a request comes from", () => {
  it("is not what it says itself, unless a proxy is in front", async () => {
    expect(await seen({ IMBRA_PROXY: "" })).toBe("undefined");
    expect(await seen({ IMBRA_PROXY: "1" })).toBe("203.0.113.9");
  });
});
