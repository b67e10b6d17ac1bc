import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { jobFromFile } from "../../server/job/from-file";
import { changePart } from "../../server/parts/change";
import { planJob } from "../../server/plan/plan-job";
import { setStock } from "../../server/shelf/stock";
import { carryOut } from "../../server/unit/action";
import { make, testDatabase } from "./setup";

const db = testDatabase();

describe("accessories that a plan took, and another plan", () => {
  const read = async (mayOrder: boolean) => {
    const file = JSON.parse(readFileSync("examples/fs-1044.json", "utf8")) as { policy?: object };
    const r = await carryOut(db.em(), await db.by(), jobFromFile, { text: JSON.stringify({ ...file, policy: { ...file.policy, mayOrder } }) });
    if (!r.ok) throw new Error(r.sentence);
    return r.value as string;
  };
  const planAgain = async (number: string) => {
    const r = await planJob(db.em(), number, await db.by(), make);
    if (!r.ok) throw new Error(r.sentence);
    return (await db.view(number)).build;
  };
  it("one that was swapped for another kind gives its name back, and the plan gets what it asked for", async () => {
    const number = await read(false);
    const before = await planAgain(number);
    const taken = before.parts.find((p) => p.from !== "client" && p.type === "knotwick-fan-ext-300");
    if (!taken) throw new Error("nothing was taken");
    expect(await carryOut(db.em(), await db.by(), changePart, { number, part: taken.id, type: "knotwick-light-ext-500" })).toMatchObject({
      ok: true,
    });
    const after = await planAgain(number);
    expect(after.parts.filter((p) => p.from !== "client").map((p) => [p.id, p.type])).toEqual(
      before.parts.filter((p) => p.from !== "client").map((p) => [p.id, p.type]),
    );
    expect(after.connections).toEqual(before.connections);
  });
  it("one that was to be ordered comes from the shelf once it lies there, and is promised from it", async () => {
    const by = await db.by();
    const stock = (type: string, to: number) => carryOut(db.em(), by, setStock, { type, stock: to });
    const number = await read(true);
    const type = "knotwick-fan-ext-300";
    const [{ had = 0 } = {}] = await db.em().execute<{ had: number }[]>(`select "stock" as had from "shelf_type" where "id" = ?`, [type]);
    for (const t of [type, "knotwick-fan-ext-600"]) expect(await stock(t, 0)).toMatchObject({ ok: true });
    const origins = async () => (await planAgain(number)).parts.filter((p) => p.type.startsWith("knotwick-fan-ext")).map((p) => p.from);
    const ordered = await origins();
    expect(ordered).toContain("order");
    expect(await stock(type, had + 5)).toMatchObject({ ok: true });
    expect(await origins()).toEqual(ordered.map(() => "shelf"));
  });
});
