import { describe, expect, it } from "vitest";
import { JobPart, Person, type PersonRow } from "../../db";
import { setting } from "../../server/first-boot/setting";
import { changeWishes } from "../../server/job/wishes";
import { changePart } from "../../server/parts/change";
import { measurePart } from "../../server/parts/measure";
import { placePart } from "../../server/parts/place";
import { benchLock } from "../../server/people/bench-lock";
import { receive } from "../../server/receipt/receive";
import { changeSchools } from "../../server/schools/follow";
import { setStock } from "../../server/shelf/stock";
import { type Action, carryOut } from "../../server/unit/action";
import { jobOf, testDatabase } from "./setup";

const db = testDatabase();
const NUMBER = "FS-1041";
const lead = async () => (await db.em().findOneOrFail(Person, { role: "lead" })) as PersonRow;
// biome-ignore lint/suspicious/noExplicitAny: any action at all
type Any = Action<any, any>;

const fan = async () => {
  const view = await db.view(NUMBER);
  const part = view.build.parts.find((p) => p.id.startsWith("fan") && p.mount);
  if (!part) throw new Error("no fan");
  return part;
};

describe("what a screen showed goes with every value that it writes", () => {
  it("what somebody else wrote meanwhile is two facts, and stays; looked at, the second may say so all the same", async () => {
    const part = await fan();
    const [type] = await db
      .em()
      .execute<{ id: string; stock: number }[]>(`select "id", "stock" from "shelf_type" where "stock" > 1 order by "id" limit 1`);
    const at = { number: NUMBER, part: part.id };
    /** An action, what the first says, what the second says having seen what was before, and what is stored. */
    const cases: [string, Any, object, object, object][] = [
      ["a serial", receive, { ...at, serial: "AAA-1" }, { ...at, serial: "BBB-2" }, { serial: part.serial ?? null }],
      ["a supplier", receive, { ...at, supplier: "One" }, { ...at, supplier: "Two" }, { supplier: null }],
      ["a name", changePart, { ...at, label: "Left fan" }, { ...at, label: "Right fan" }, { label: part.label ?? null }],
      ["a place", placePart, { ...at, blows: "in" }, { ...at, blows: "out" }, { blows: part.blows ?? null }],
      ["a measure", measurePart, { ...at, what: "depthMm", mm: 27 }, { ...at, what: "depthMm", mm: 28 }, { mm: null }],
      [
        "a setting",
        setting,
        { number: NUMBER, cpuFanWarning: "ignore", because: "a pump on another header" },
        { number: NUMBER, cpuFanWarning: "halt" },
        { cpuFanWarning: "ignoreds" },
      ],
      ["stock", setStock, { type: type?.id, stock: 7 }, { type: type?.id, stock: 3 }, { stock: type?.stock ?? 0 }],
      ["a wish", changeWishes, { number: NUMBER, noiseDb: 33 }, { number: NUMBER, noiseDb: 36 }, { noiseDb: null }],
      [
        "a school",
        changeSchools,
        { number: NUMBER, schools: { caseFans: "hub" } },
        { number: NUMBER, schools: { caseFans: "own-header" } },
        { caseFans: "group-by-place" },
      ],
      ["the lock", benchLock, { minutes: 20 }, { minutes: 30 }, { minutes: 15 }],
    ];
    for (const [what, action, first, second, saw] of cases) {
      const by = await lead();
      expect([what, await carryOut(db.em(), by, action, first)]).toEqual([what, expect.objectContaining({ ok: true })]);
      const revision = async () => (await jobOf(db.em(), NUMBER)).revision;
      const before = await revision();
      const said = await carryOut(db.em(), by, action, { ...second, saw });
      expect([what, said]).toEqual([
        what,
        expect.objectContaining({
          ok: false,
          sentence: expect.stringMatching(/^Meanwhile somebody has said of .* Nothing was changed\. Look, then choose\.$/),
          facts: { there: expect.any(String), yours: expect.any(String) },
        }),
      ]);
      expect([what, await revision()]).toEqual([what, before]);
      // The same as is stored is no second fact, whatever was seen.
      const same = await carryOut(db.em(), by, action, { ...first, saw });
      expect([what, same.ok || !("facts" in same)]).toEqual([what, true]);
      expect([what, await carryOut(db.em(), by, action, second)]).toEqual([what, expect.objectContaining({ ok: true })]);
    }
  });
});

describe("one serial, one part", () => {
  it("whatever its capitals, and of two at the same moment on two jobs one is told", async () => {
    const by = await lead();
    const free = async (number: string) => {
      const view = await db.view(number);
      return view.build.parts.filter((p) => p.from === "client").map((p) => p.id);
    };
    const [a = "", b = ""] = await free("FS-1042");
    const [c = ""] = await free("FS-1043");
    expect(await carryOut(db.em(), by, receive, { number: "FS-1042", part: a, serial: "SN-abc-9" })).toMatchObject({ ok: true });
    expect(await carryOut(db.em(), by, receive, { number: "FS-1042", part: b, serial: "sn-ABC-9" })).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("is already on"),
    });
    expect(await carryOut(db.em(), by, changePart, { number: "FS-1043", part: c, serial: "SN-ABC-9" })).toMatchObject({ ok: false });
    for (let n = 0; n < 6; n++) {
      const two = await Promise.all([
        carryOut(db.em(), by, receive, { number: "FS-1042", part: b, serial: `Race-${n}` }),
        carryOut(db.em(), by, receive, { number: "FS-1043", part: c, serial: `RACE-${n}` }),
      ]);
      expect([n, two.filter((r) => r.ok).length]).toEqual([n, 1]);
      expect([n, await db.em().count(JobPart, { serial: { $ilike: `race-${n}` } })]).toEqual([n, 1]);
    }
  });
});
