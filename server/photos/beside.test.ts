import sharp from "sharp";
import { describe, expect, it } from "vitest";
import { uprightBeside } from "./beside";

const picture = (width: number, height: number) =>
  sharp({ create: { width, height, channels: 3, background: "#284" } })
    .jpeg()
    .toBuffer();

describe("photos, in a process of their own", () => {
  it("are turned upright one after the other, and the thread that answers pages has its turn meanwhile", async () => {
    const raw = await picture(3000, 2000);
    let turns = 0;
    const ticking = setInterval(() => turns++, 5);
    const made = await Promise.all([uprightBeside(raw), uprightBeside(Buffer.from("no photo")), uprightBeside(raw)]);
    clearInterval(ticking);
    expect(made.map((m) => m && m !== "busy" && [m.width, m.height])).toEqual([[2000, 1333], undefined, [2000, 1333]]);
    expect(turns).toBeGreaterThan(5);
  }, 60_000);
  it("that take too long are none, and the next is worked on all the same; too many at once are told to come again", async () => {
    const raw = await picture(9000, 9000);
    expect(await uprightBeside(raw, 0.02)).toBeUndefined();
    const small = await picture(40, 30);
    expect(await uprightBeside(small)).toMatchObject({ width: 40, height: 30 });
    const many = await Promise.all(Array.from({ length: 10 }, () => uprightBeside(small)));
    expect(many.filter((m) => m === "busy").length).toBeGreaterThan(0);
    expect(many.filter((m) => m && m !== "busy").length).toBeGreaterThanOrEqual(6);
  }, 60_000);
});
