import { describe, expect, it } from "vitest";
import { resultOf } from "./answer";

const json = (status: number, body: unknown) => new Response(JSON.stringify(body), { status });

describe("an answer to what a device sent", () => {
  it("is what the server said, taken or refused", async () => {
    expect(await resultOf(json(200, { ok: true, value: null, revision: 4 }))).toMatchObject({ ok: true, revision: 4 });
    expect(await resultOf(json(413, { ok: false, sentence: "The entry is too large. Nothing was changed." }))).toMatchObject({
      ok: false,
      sentence: "The entry is too large. Nothing was changed.",
    });
  });
  it("refused for good by something in between is a refusal too, so that nothing waits behind it for ever", async () => {
    for (const status of [400, 413, 415, 422]) {
      const r = await resultOf(new Response("<html>no</html>", { status }));
      expect([status, r.ok, !r.ok && r.later]).toEqual([status, false, undefined]);
    }
  });
  it("of a server that is not there, or asks to wait, is none: it is sent again", async () => {
    for (const status of [401, 403, 404, 408, 421, 425, 429, 500, 502, 503, 504])
      await expect(resultOf(json(status, {})), String(status)).rejects.toThrow();
  });
});
