import sharp from "sharp";
import { describe, expect, it } from "vitest";
import { upright } from "./upright";

const picture = (width: number, height: number) => sharp({ create: { width, height, channels: 3, background: "#284" } });

describe("a photo that comes in", () => {
  it("is turned as its camera says and made no larger than needed", async () => {
    const lying = await picture(3000, 1500).jpeg().withMetadata({ orientation: 6 }).toBuffer();
    const kept = await upright(lying);
    expect([kept?.width, kept?.height]).toEqual([1000, 2000]);
    expect((await sharp(kept?.bytes).metadata()).orientation).toBeUndefined();
  });
  it("is left as small as it is; PNG and WebP become JPEG", async () => {
    for (const raw of [await picture(300, 200).png().toBuffer(), await picture(300, 200).webp().toBuffer()]) {
      const kept = await upright(raw);
      expect([kept?.width, kept?.height]).toEqual([300, 200]);
      expect((await sharp(kept?.bytes).metadata()).format).toBe("jpeg");
    }
  });
  it("that is none is none: text, a vector drawing, half a file", async () => {
    expect(await upright(Buffer.from("this is no photo"))).toBeUndefined();
    expect(await upright(Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>'))).toBeUndefined();
    const whole = await picture(800, 800).jpeg().toBuffer();
    expect(await upright(whole.subarray(0, 40))).toBeUndefined();
  });
});
