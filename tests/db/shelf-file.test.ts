import sharp from "sharp";
import { describe, expect, it } from "vitest";
import { provisional } from "../../core/catalogue";
import { ShelfType } from "../../db";
import { addPart } from "../../server/parts/add";
import { photo } from "../../server/photos/keep";
import { photoStore } from "../../server/photos/store";
import { mergeTypes } from "../../server/shelf/merge";
import { saveType } from "../../server/shelf/save";
import { SHELF_ORDERS, searchShelf, shelfEntry } from "../../server/shelf/search";
import { type FileRow, judgeShelfFile, shelfFile, takeShelfFile } from "../../server/shelf/shelf-file";
import { addTip, keepTipPhoto } from "../../server/shelf/tips";
import { typeAsFile } from "../../server/shelf/type-file";
import { keepTaps, keepTypePhoto } from "../../server/shelf/type-photo";
import { carryOut } from "../../server/unit/action";
import { processorMs } from "../cases";
import { testDatabase } from "./setup";

const db = testDatabase();

const judge = async (text: string) => {
  const r = await carryOut(db.em(), await db.by(), judgeShelfFile, { name: "list", text });
  if (!r.ok) throw new Error([r.sentence, ...(r.more ?? [])].join(" "));
  return r.value;
};
const refused = async (text: string) => {
  const r = await carryOut(db.em(), await db.by(), judgeShelfFile, { name: "list", text });
  return r.ok ? "" : [r.sentence, ...(r.more ?? [])].join(" ");
};
const take = async (text: string, rows: readonly FileRow[]) =>
  carryOut(db.em(), await db.by(), takeShelfFile, { name: "list.csv", text, rows: rows.map((r) => ({ id: r.id, seen: r.seen })) });
const whats = (rows: readonly FileRow[]) => rows.map((r) => r.what);

describe("the shelf out and in again", () => {
  it.each(["csv", "json"] as const)("as %s: everything comes back as it is, and nothing would be stored", async (as) => {
    const text = await shelfFile(db.em(), as, "");
    const { rows, said } = await judge(text);
    expect(rows).toHaveLength(await db.em().count(ShelfType));
    expect(rows.filter((r) => r.what !== "same")).toEqual([]);
    expect(said).toEqual([]);
  });
  it("narrowed by words and kind, as the list is", async () => {
    const one = await judge(await shelfFile(db.em(), "json", "whirrow", "fan"));
    expect(one.rows.length).toBeGreaterThan(3);
    expect(one.rows.every((r) => r.name.includes("Whirrow"))).toBe(true);
  });
});

describe("a CSV taken over", () => {
  it("a changed number is a new revision, a changed count stock only, a row like another a new part type with its ports", async () => {
    const loud = (await shelfEntry(db.em(), "whirrow-140"))?.type.ratings.noiseDb;
    const text = [
      "id,like,name,stock,ratings.noiseDb",
      "whirrow-120,,,,21.5",
      `whirrow-140,,,9,${loud}`,
      "whirrow-120-quiet,whirrow-120,Whirrow 120 quiet,2,12",
    ].join("\n");
    const { rows } = await judge(text);
    expect(whats(rows)).toEqual(["corrected", "stock", "new"]);
    const before = await shelfEntry(db.em(), "whirrow-120");
    expect(await take(text, rows)).toEqual({ ok: true, value: { made: 1, corrected: 1, stock: 1, beside: 0, left: [] } });
    const after = await shelfEntry(db.em(), "whirrow-120");
    expect([after?.type.ratings.noiseDb, after?.type.revision, after?.stock]).toEqual([21.5, (before?.type.revision ?? 0) + 1, before?.stock]);
    expect(after?.revisions[0]?.because).toBe("From list.csv");
    const made = await shelfEntry(db.em(), "whirrow-120-quiet");
    expect([made?.type.name, made?.type.ratings.noiseDb, made?.stock]).toEqual(["Whirrow 120 quiet", 12, 2]);
    expect(made?.type.leads).toEqual(after?.type.leads);
    expect((await shelfEntry(db.em(), "whirrow-140"))?.stock).toBe(9);
  });
  it("what was corrected between reading and taking over is left alone, with a sentence", async () => {
    const text = "id,ratings.noiseDb\nwhirrow-120-3w,33";
    const { rows } = await judge(text);
    await take(text.replace("33", "34"), (await judge(text.replace("33", "34"))).rows);
    expect(await take(text, rows)).toMatchObject({
      ok: true,
      value: { corrected: 0, left: [expect.stringContaining("corrected by somebody else")] },
    });
    expect((await shelfEntry(db.em(), "whirrow-120-3w"))?.type.ratings.noiseDb).toBe(34);
  });
  it("a formula in a cell is written as text and read back as it was", async () => {
    const text = JSON.stringify([{ ...(await shelfEntry(db.em(), "whirrow-140"))?.type, id: "formula-fan", name: "=1+1" }]);
    expect(await take(text, (await judge(text)).rows)).toMatchObject({ ok: true, value: { made: 1 } });
    const csv = await shelfFile(db.em(), "csv", "formula-fan");
    expect(csv).toContain("'=1+1");
    expect(csv).not.toMatch(/(^|,)=1/m);
    expect(whats((await judge(csv)).rows)).toEqual(["same"]);
  });
});

describe("bad rows and files, a sentence each; the good rows go", () => {
  it("rows", async () => {
    const { rows, said } = await judge(
      "id,like,kind,stock,body.widthMm,colour\nghost,,,,120,red\nnew-1,ghost,,,120,red\nwhirrow-120,,board,,120,red\nwhirrow-140,,,many,wide,red\nwhirrow-140,,,,-5,red\n,,,,,red",
    );
    const of = (line: number) => rows.find((r) => r.line === line)?.faults.join(" ") ?? "";
    expect(of(2)).toContain("no part type ghost. Name one that it is like");
    expect(of(3)).toContain("no part type ghost to be like");
    expect(of(4)).toContain("It is called a board; whirrow-120 is a fan");
    expect(of(5)).toContain('body.widthMm: "wide" is not a number');
    expect(of(5)).toContain('stock: "many" is not a whole number');
    expect(of(6)).toContain("body.widthMm: -5 is too small");
    expect(of(6)).toContain("on line 5 already");
    expect(of(7)).toContain("It has no id");
    expect(new Set(whats(rows))).toEqual(new Set(["left out"]));
    expect(said).toEqual(["Columns that are not known were not read: colour."]);
  });
  it("a port in use cannot go, and says so; the entry beside it goes", async () => {
    const board = (await shelfEntry(db.em(), "tarnbrook-heron-t40"))?.type;
    const fan = (await shelfEntry(db.em(), "whirrow-140"))?.type;
    const text = JSON.stringify([
      { ...board, ports: [] },
      { ...fan, name: "Whirrow 140 new" },
    ]);
    const r = await take(text, (await judge(text)).rows);
    expect(r).toMatchObject({ ok: true, value: { corrected: 1, left: [expect.stringContaining("is in use")] } });
    expect((await shelfEntry(db.em(), "tarnbrook-heron-t40"))?.type.ports.length).toBeGreaterThan(10);
  });
  it.each([
    ["", "The list is empty"],
    ["name\nx", 'There is no column "id"'],
    ["[", "this is not JSON"],
    ["[]", "holds no part type"],
    [`[${Array(2001).fill("{}").join(",")}]`, "2001 part types; at most 2000"],
    [`id\n${Array.from({ length: 2001 }, (_, i) => `a${i}`).join("\n")}`, "2001 rows; at most 2000"],
  ])("%.12s", async (text, words) => {
    expect(await refused(text)).toContain(words);
  });
});

describe("a file that is far too large for what it is", () => {
  it("of 40,000 columns is refused at once, with their number", async () => {
    const wide = `id,${Array.from({ length: 40_000 }, (_, i) => `c${i}`).join(",")}\nwhirrow-120${",1".repeat(40_000)}`;
    const t = processorMs();
    expect(await refused(wide)).toMatch(/^40001 columns; at most 200\. Nothing was read\./);
    expect(processorMs() - t).toBeLessThan(3000);
  });
  it("of 2,000 part types holds up nobody: others have their turn while it is judged", async () => {
    const one = (await shelfEntry(db.em(), "whirrow-120"))?.type;
    const text = JSON.stringify(Array.from({ length: 1500 }, (_, i) => ({ ...one, id: `many-${i}` })));
    let longest = 0;
    let last = processorMs();
    const beat = setInterval(() => {
      longest = Math.max(longest, processorMs() - last);
      last = processorMs();
    }, 5);
    const began = processorMs();
    expect((await judge(text)).rows).toHaveLength(1500);
    clearInterval(beat);
    expect(longest).toBeLessThan((processorMs() - began) / 2);
  }, 60_000);
});

describe("a part type with its tips and photo as one file", () => {
  it("is given to another shop and taken in: type, tip, photo and the points on it; taken in again it is the same", async () => {
    const by = await db.by();
    const board = "tarnbrook-heron-t40";
    await carryOut(db.em(), by, addTip, { type: board, step: "fit", words: "Its shield has sharp edges." } as never);
    const jpeg = await sharp({ create: { width: 40, height: 30, channels: 3, background: "#345" } })
      .jpeg()
      .toBuffer();
    const id = crypto.randomUUID();
    await photoStore.put(id, jpeg);
    await carryOut(db.em(), by, keepTypePhoto, { type: board, photo: { id, width: 40, height: 30, bytes: jpeg.length } });
    // What a tip means is shown by a photo; another in its place takes the first away.
    const [tip] = (await shelfEntry(db.em(), board))?.tips ?? [];
    const [one, two] = [crypto.randomUUID(), crypto.randomUUID()];
    for (const p of [one, two]) {
      await photoStore.put(p, jpeg);
      const kept = await carryOut(db.em(), by, keepTipPhoto, { tip: tip?.id ?? "", photo: { id: p, width: 40, height: 30, bytes: jpeg.length } });
      expect(kept).toMatchObject({ ok: true });
    }
    expect((await carryOut(db.em(), by, photo, { id: two })).ok).toBe(true);
    expect((await carryOut(db.em(), by, photo, { id: one })).ok).toBe(false);
    expect(await photoStore.get(one)).toBeUndefined();
    const taps = [
      { xPx: 1, yPx: 1, xMm: 10, yMm: 6 },
      { xPx: 39, yPx: 1, xMm: 237, yMm: 6 },
    ];
    await carryOut(db.em(), by, keepTaps, { type: board, photo: id, taps });
    const out = await carryOut(db.em(), by, typeAsFile, { id: board });
    if (!out.ok) throw new Error(out.sentence);
    // At the other shop it is another type: here, under another id.
    const there = out.value.replaceAll(board, "their-heron");
    const { rows } = await judge(there);
    expect(whats(rows)).toEqual(["new"]);
    const took = await take(there, rows);
    expect(took).toMatchObject({ ok: true, value: { made: 1, beside: 2, left: [] } });
    const entry = await shelfEntry(db.em(), "their-heron");
    expect(entry?.tips.map((t) => [t.words, t.step])).toEqual([["Its shield has sharp edges.", "fit"]]);
    expect(entry?.tips[0]?.photo).toMatchObject({ width: 40, height: 30 });
    expect(entry?.photo).toMatchObject({ width: 40, height: 30, taps });
    const { type } = (await shelfEntry(db.em(), board)) ?? {};
    expect({ ...entry?.type, revision: 0, id: board }).toEqual({ ...type, revision: 0 });
    const again = await judge(there);
    expect(whats(again.rows)).toEqual(["beside"]);
    const twice = await take(there, again.rows);
    expect(twice.ok && [twice.value.beside, twice.value.left]).toEqual([0, ["The photo of their-heron: the shelf has one already, and keeps it."]]);
  });
  it("with a picture that is none, or not as such a file is, says so in a sentence and takes the rest", async () => {
    const one = { format: "imbra-part-types", version: 1, types: [], tips: [], photos: [] };
    expect(await refused(JSON.stringify({ ...one, version: 9 }))).toMatch(/version/);
    expect(await refused(JSON.stringify({ ...one, types: "none" }))).toMatch(/no list of part types/);
    const { type } = (await shelfEntry(db.em(), "whirrow-120")) ?? {};
    const text = JSON.stringify({ ...one, types: [type], photos: [{ type: "whirrow-120", jpeg: Buffer.from("no picture").toString("base64") }] });
    const { rows } = await judge(text);
    const took = await take(text, rows);
    expect(took.ok && took.value.left).toEqual(["The photo of whirrow-120 is no picture that Imbra reads."]);
  });
});

describe("two part types that are one", () => {
  it("become one: open jobs have the other, the shelf lists it once; what is known whole is never merged away", async () => {
    const by = await db.by();
    const fan = provisional("fan", { id: "new-breeze", maker: "", name: "Breeze 120" }, { sizeMm: 120 }, {});
    await carryOut(db.em(), by, saveType, { text: JSON.stringify(fan) } as never);
    await carryOut(db.em(), by, addPart, { number: "FS-1044", type: "new-breeze", count: 1 });
    expect((await searchShelf(db.em(), "", undefined, { provisional: true, order: "jobs" })).rows[0]).toMatchObject({ id: "new-breeze", jobs: 1 });
    expect(await carryOut(db.em(), by, mergeTypes, { drop: "whirrow-120", keep: "new-breeze" })).toMatchObject({ ok: false });
    expect(await carryOut(db.em(), by, mergeTypes, { drop: "new-breeze", keep: "coldwharf-tower" })).toMatchObject({ ok: false });
    await carryOut(db.em(), by, addTip, { type: "new-breeze", words: "Its corners are soft." } as never);
    const before = await db.view("FS-1044");
    const merged = await carryOut(db.em(), by, mergeTypes, { drop: "new-breeze", keep: "whirrow-120" });
    expect(merged).toMatchObject({ ok: true, value: { jobs: ["FS-1044"] } });
    const after = await db.view("FS-1044");
    expect(after.build.parts.filter((p) => p.type === "whirrow-120").length).toBe(
      before.build.parts.filter((p) => p.type === "whirrow-120").length + 1,
    );
    expect(after.build.parts.some((p) => p.type === "new-breeze")).toBe(false);
    expect(await db.em().count(ShelfType, { id: "new-breeze" })).toBe(0);
    expect(after.log[0]?.text).toMatch(/Breeze 120 replaced by Whirrow 120/);
    // What colleagues know of the one is known of the other.
    expect((await shelfEntry(db.em(), "whirrow-120"))?.tips.map((t) => t.words)).toContain("Its corners are soft.");
  });
});

describe("the shelf as a list", () => {
  it("is sorted and leafed through: every part type stands on one page, once", async () => {
    const total = await db.em().count(ShelfType);
    for (const order of SHELF_ORDERS) {
      const ids: string[] = [];
      for (let page = 0; ; page++) {
        const r = await searchShelf(db.em(), "", undefined, { order, page });
        ids.push(...r.rows.map((x) => x.id));
        expect(r.total).toBe(total);
        if (!r.more) break;
      }
      expect(ids).toHaveLength(total);
      expect(new Set(ids).size).toBe(total);
    }
  });
});
