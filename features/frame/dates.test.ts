import { describe, expect, it } from "vitest";
import { datesIn, withDates } from "./dates";
import { languageOf } from "./language";

describe("dates", () => {
  it("are written as the person's language writes them", () => {
    expect(datesIn("en-GB").day("2026-11-27")).toBe("Fri 27 Nov");
    expect(datesIn("de").day("2026-11-27")).toBe("Fr., 27. Nov.");
    expect(datesIn("en-US", "UTC").clock("2026-11-27T14:05:00Z")).toBe("02:05 PM");
    expect(datesIn("en-GB", "UTC").both("2026-11-27T14:05:00Z")).toBe("27 Nov 14:05");
  });
  it("a day is that day in every zone; a moment is of the device's", () => {
    expect(datesIn("en-GB", "Pacific/Auckland").day("2026-11-27")).toBe("Fri 27 Nov");
    expect(datesIn("en-GB", "Pacific/Auckland").both("2026-11-27T14:05:00Z")).toBe("28 Nov 03:05");
  });
  it("a sentence of the server says its moments and days in the reader's zone and words", () => {
    const said = "FN-01 is in SYS_FAN1 (Ebo Larkmoor, 2026-11-27T23:02:00.000Z). Due 2026-11-28, part 2026-99-99.";
    expect(withDates(said, datesIn("en-GB", "Europe/Oslo"))).toBe("FN-01 is in SYS_FAN1 (Ebo Larkmoor, 00:02). Due Sat 28 Nov, part 2026-99-99.");
    expect(withDates(said, datesIn("en-US", "UTC"))).toBe("FN-01 is in SYS_FAN1 (Ebo Larkmoor, 11:02 PM). Due Sat, Nov 28, part 2026-99-99.");
  });
  it("are made once for a language and zone, and again when many others came between", () => {
    const first = datesIn("en-GB", "Europe/Oslo");
    expect(datesIn("en-GB", "Europe/Oslo")).toBe(first);
    for (let i = 0; i < 60; i++) datesIn(`en-x-lang${i}`, "UTC");
    expect(datesIn("en-GB", "Europe/Oslo")).not.toBe(first);
    expect(datesIn("en-GB", "Europe/Oslo").both("2026-11-27T23:02:00Z")).toBe("28 Nov 00:02");
  });
  it("the language is the first that the browser asks for and that there is", () => {
    expect(languageOf("nb-NO,nb;q=0.9,en;q=0.8")).toBe("nb-NO");
    expect(languageOf("xx-nothing, *;q=0.5, fr")).toBe("fr");
    for (const odd of [null, "", "*", "<script>", "\0,,,;;"]) expect([odd, languageOf(odd)]).toEqual([odd, "en-GB"]);
  });
});
