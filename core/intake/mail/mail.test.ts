import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cases, leastMs } from "../../../tests/cases";
import { shelf } from "../../../tests/fixtures/demo";
import { amountOf, dueIn, fromMail, moneyIn, numberIn, readMail, shelfIndex, understood } from "..";

const index = shelfIndex(shelf);
const TODAY = "2026-12-01";
const read = (text: string) => readMail(text, index, TODAY);
const parts = (text: string) => read(text).lines.filter((l) => l.as === "part");

describe("numbers as people write them", () => {
  it.each([
    ["1,830", 1830],
    ["1.830", 1830],
    ["1 830", 1830],
    ["1'830", 1830],
    ["129,90", 129.9],
    ["129.90", 129.9],
    ["1.129,90", 1129.9],
    ["1,129.90", 1129.9],
    ["2k", 2000],
    ["1.5k", 1500],
    ["850", 850],
  ])("%s", (text, n) => expect(numberIn(text)).toBe(n));
  it.each([
    ["for 89,90 €", [89.9]],
    ["EUR 1.120,00", [1120]],
    ["$99 and £1,250", [99, 1250]],
    ["129.-", [129]],
    ["650 W", []],
    ["27 inch 1440p", []],
  ])("money in %s", (text, sums) => expect(moneyIn(text).sums).toEqual(sums));
  it.each([
    ["2 pcs Vault 8 TB", 2, "Vault 8 TB"],
    ["two Whirrow 120", 2, "Whirrow 120"],
    ["Whirrow 120, 2 of them", 2, "Whirrow 120"],
    ["2x32GB Lathewell", 2, "32GB Lathewell"],
    ["a pair of Whirrow 140", 2, "Whirrow 140"],
    ["Lüfter 3 Stück", 3, "Lüfter"],
    ["120 mm fan", 1, "120 mm fan"],
    ["500 GB drive", 1, "500 GB drive"],
    ["8-core processor", 1, "8-core processor"],
    ["24-pin extension", 1, "24-pin extension"],
    ["3 Whirrow 120", 3, "Whirrow 120"],
    ["Swift 2 TB", 1, "Swift 2 TB"],
    ["Borealis X5", 1, "Borealis X5"],
    ["Whirrow 120 x5", 5, "Whirrow 120"],
  ])("amount of %s", (text, count, words) => expect(amountOf(text)).toMatchObject({ count, words }));
  it.each([
    ["by Friday 18 December, 3 pm", "2026-12-18", "15:00"],
    ["bis spätestens 12.12. um 15 Uhr", "2026-12-12", "15:00"],
    ["needed by tomorrow", "2026-12-02", undefined],
    ["before 2027-01-15", "2027-01-15", undefined],
    ["until January 7th", "2027-01-07", undefined],
    ["by Monday, noon", "2026-12-07", "12:00"],
    ["bis zum 3. Januar", "2027-01-03", undefined],
    ["due 20.12.2026, 9:30", "2026-12-20", "09:30"],
  ])("the moment in %s", (text, day, hour) => expect(dueIn(text, TODAY)).toMatchObject({ day, ...(hour ? { hour } : {}) }));
  it("no day, no moment; a day that does not exist is none", () => {
    expect(dueIn("as soon as you can", TODAY)).toBeUndefined();
    expect(dueIn("by 31.02.2027", TODAY)).toBeUndefined();
  });
});

describe("a mail", () => {
  it.each(["studio", "table", "german"] as const)("%s: parts, extras and talk, each once; who, when, for how much", (name) => {
    const mail = read(readFileSync(`examples/mails/${name}.txt`, "utf8"));
    const is = (as: string) => mail.lines.filter((l) => l.as === as).length;
    const told = [is("part"), is("extra"), mail.client.name, mail.due?.day, mail.due?.hour, mail.budget, mail.monitors.length, mail.faults];
    expect([name, told]).toEqual([
      name,
      {
        studio: [13, 4, "Berit Okonski", "2026-12-18", "15:00", 2000, 1, []],
        table: [9, 1, undefined, undefined, undefined, undefined, 1, []],
        german: [10, 2, "Jorun Falkenried", "2026-12-12", "15:00", 2400, 0, []],
      }[name],
    ]);
    // Nothing is lost: every line that has words is in the answer.
    const rows = readFileSync(`examples/mails/${name}.txt`, "utf8").split("\n");
    for (const [i, row] of rows.entries()) if (row.trim() !== "") expect([row, mail.lines.some((l) => l.line === i + 1)]).toEqual([row, true]);
  });
  it("what the client has, and from whom a used thing is", () => {
    const mail = read(
      "I already have a 1 TB SSD from my old machine and a keyboard.\n- 4 TB hard disk, used, from my brother\n- Case (already have it)",
    );
    expect(mail.lines.map((l) => [l.as, l.kind ?? l.extra, l.origin, l.from])).toEqual([
      ["part", "drive", "own", undefined],
      ["extra", "keyboard", "own", undefined],
      ["part", "drive", "used", "my brother"],
      ["part", "case", "own", undefined],
    ]);
  });
  it("what must be true of the machine is kept in its words", () => {
    const mail = read("It must run Kitefall at 100 fps.\nIt should be quiet, at most 26 dB(A). Please move my data over.");
    expect(mail.promises.map((p) => [p.about, p.value])).toEqual([
      ["program", 100],
      ["quiet", 26],
      ["data-moved", undefined],
    ]);
  });
  it("equal machines are said once; a list quoted five times over is one list", () => {
    expect(read("We need 3 identical machines.\n- Whirrow 120").machines).toBe(3);
    const list = "- Heron T40\n- 2 x Whirrow 120\n- Swift 2 TB NVMe";
    const quoted = [1, 2, 3, 4, 5].map((n) => list.replace(/^/gm, `${">".repeat(n)} `)).join("\n");
    expect(parts(`${list}\n\nOn Monday somebody wrote:\n${quoted}`).map((l) => l.count)).toEqual([1, 2, 1]);
  });
  it("sums that add up what stands above are no parts; other scripts and long texts lose nothing and stop nothing", () => {
    expect(parts("Heron T40 €310\nTotal: €310")).toHaveLength(1);
    const odd = read("こんにちは\nПривет, мне нужен компьютер\n\u202eabc\n| --- | --- |\n===");
    expect(odd.lines.every((l) => l.as === "talk")).toBe(true);
    const long = read(Array.from({ length: 3200 }, (_, i) => `- ${i} Whirrow 120 Nr ${i}`).join("\n"));
    expect(long.faults[0]).toMatch(/3200 lines; the first 3000 are read/);
  });
  it("contradictory words: the first form that is named counts, nothing fails", () => {
    const [line] = parts("Case: mini tower board ATX 170 mm");
    expect(line).toMatchObject({ as: "part", kind: "case", said: { form: "ATX" } });
  });
  it("of two that answer as well the difference is asked, not the list; a model that no entry has is none of them", () => {
    const [fan] = parts("- Fans: 140 mm");
    expect([fan?.known?.id, fan?.guessed, fan?.ask]).toEqual(["whirrow-140", true, expect.stringMatching(/^Whirrow 140 or Whirrow 140 .*\?$/)]);
    const [board] = parts("- Board: Tarnbrook Heron T99");
    expect([board?.known, board?.alternatives[0]?.name]).toEqual([undefined, expect.stringMatching(/^Heron/)]);
  });
});

/** A grammar of mails, apart from the reader: what is asked for, and how people write it. */
const MAKERS = ["Stellan", "Quern", "Nordlicht", "Borealis", "Vantage", "Marrow", "Tolliver"];
const LINES = ["Gorge", "Airbox", "Peak", "Drift", "Onyx", "Ferry", "Saltmarsh"];
const KIND_WORD = {
  board: ["Motherboard", "Mainboard", "board", "Hauptplatine"],
  cpu: ["CPU", "Processor", "Prozessor"],
  card: ["GPU", "Graphics card", "Grafikkarte"],
  supply: ["PSU", "Power supply", "Netzteil"],
  case: ["Case", "Gehäuse", "PC case"],
  cooler: ["CPU cooler", "Cooler", "CPU-Kühler"],
  memory: ["RAM", "Memory", "Arbeitsspeicher"],
  drive: ["SSD", "Drive", "hard disk", "Festplatte"],
  fan: ["Case fan", "fan", "Gehäuselüfter"],
} as const;
type Kind = keyof typeof KIND_WORD;
const SIZE: Record<Kind, readonly string[]> = {
  board: ["ATX", "micro ATX", "ITX"],
  cpu: ["8-core", "120 W", "12 cores"],
  card: ["12GB", "310 mm", "250W"],
  supply: ["650W", "850 W gold", "750 W modular"],
  case: ["black", "white", "glass"],
  cooler: ["155 mm", "tower", "black"],
  memory: ["16GB", "32 GB DDR5-6000", "16 GB 5600 MHz"],
  drive: ["1TB", "2 TB", "500 GB"],
  fan: ["120 mm", "140mm", "120 mm black"],
};
const item = fc
  .record({
    kind: fc.constantFrom(...(Object.keys(KIND_WORD) as Kind[])),
    word: fc.nat(3),
    maker: fc.constantFrom(...MAKERS),
    line: fc.constantFrom(...LINES),
    no: fc.integer({ min: 2, max: 9 }),
    size: fc.nat(2),
    count: fc.constantFrom(1, 1, 1, 2, 3, 4),
    amount: fc.nat(6),
    shape: fc.nat(5),
    price: fc.constantFrom(undefined, undefined, "89,90 €", "€129", "EUR 1,120.00"),
  })
  .map((r) => {
    const kind = KIND_WORD[r.kind][r.word % KIND_WORD[r.kind].length] ?? "";
    const name = `${r.maker} ${r.line} ${String.fromCharCode(65 + r.no)}${r.no * 10}`;
    const thing = `${name} ${SIZE[r.kind][r.size] ?? ""}`;
    const n = r.count;
    const withKind = [`${kind} ${thing}`, `${thing} ${kind}`, `${kind}: ${thing}`][r.shape % 3] ?? "";
    const amounts = [
      `${n}x ${withKind}`,
      `${withKind} x${n}`,
      `${withKind} (${n})`,
      `${n} pcs ${withKind}`,
      `${withKind}, ${n} pcs`,
      `${n} × ${withKind}`,
      `${withKind}, qty ${n}`,
    ];
    const counted = n === 1 && r.amount % 2 === 0 ? withKind : r.shape % 3 === 2 ? `${kind}: ${n} x ${thing}` : (amounts[r.amount] ?? withKind);
    const priced = r.price ? `${counted}${r.shape % 2 ? " - " : ", "}${r.price}` : counted;
    return { kind: r.kind, count: n, name, text: `${["- ", "* ", "", "• "][r.shape % 4]}${priced}` };
  });
const NOISE = [
  "Hi there,",
  "I hope you are well and that you can help me with this.",
  "It is for my daughter, who edits films.",
  "Please tell me if something does not fit.",
  "We talked about it on the phone last week.",
  "Hallo zusammen,",
  "ich hoffe, Sie können mir helfen.",
  "What do you think?",
  "Sorry for the long list!",
  "If you have a better idea I would like to hear it.",
  "",
  "--",
];

describe("laws", () => {
  it("generated mails are read back with no part lost and none invented", () => {
    fc.assert(
      fc.property(
        fc.array(fc.oneof({ weight: 3, arbitrary: item }, { weight: 1, arbitrary: fc.constantFrom(...NOISE) }), { minLength: 1, maxLength: 16 }),
        (rows) => {
          const text = rows.map((r) => (typeof r === "string" ? r : r.text)).join("\n");
          const wanted = rows.flatMap((r) => (typeof r === "string" ? [] : [r]));
          const got = parts(text);
          expect([text, got.map((l) => [l.kind, l.count])]).toEqual([text, wanted.map((w) => [w.kind, w.count])]);
          for (const [i, w] of wanted.entries()) expect([w.text, got[i]?.words.includes(w.name.split(" ")[1] ?? "")]).toEqual([w.text, true]);
        },
      ),
      cases(150, 29),
    );
  });
  it("the same lines under one heading in another order make the same build", () => {
    fc.assert(
      fc.property(fc.uniqueArray(item, { minLength: 2, maxLength: 8, selector: (x) => `${x.kind}${x.name}` }), fc.nat(), (rows, turn) => {
        const turned = [...rows.slice(turn % rows.length), ...rows.slice(0, turn % rows.length)];
        const made = (list: readonly { text: string }[]) =>
          fromMail(read(list.map((r) => `- ${r.text.replace(/^[-*•]\s/, "")}`).join("\n")), (id) => shelf.find((t) => t.id === id)).build;
        const [a, b] = [made(rows), made(turned)];
        const types = (x: typeof a) => x.parts.map((p) => p.type).sort();
        expect(types(b)).toEqual(types(a));
        const of = (x: typeof a) => Object.fromEntries(x.partTypes.map((t) => [t.id, t]));
        expect(of(b)).toEqual(of(a));
      }),
      cases(40, 31),
    );
  });
  it("two boards in one list are made alike whichever stands first", () => {
    const of = (...list: string[]) =>
      Object.fromEntries(
        fromMail(read(list.map((l) => `- Motherboard Stellan Gorge ${l} ATX`).join("\n")), () => undefined).build?.partTypes.map((t) => [t.id, t]) ??
          [],
      );
    expect(Object.keys(of("C20", "D30"))).toHaveLength(2);
    expect(of("D30", "C20")).toEqual(of("C20", "D30"));
  });
  it("what is said in one line: parts and those that are known", () => {
    expect(understood(read("- Heron T40 €300\n- 3 fans Tolliver Drift 9\n- Whirrow 120, €20"))).toEqual({ parts: 5, known: 2, total: 320 });
  });
  it("200 lines against 5,000 part types take under a second", async () => {
    const many = shelfIndex(
      Array.from({ length: 5000 }, (_, i) => ({
        ...(shelf[i % shelf.length] as (typeof shelf)[number]),
        id: `t-${i}`,
        name: `${shelf[i % shelf.length]?.name} ${i}`,
      })),
    );
    const text = Array.from({ length: 200 }, (_, i) => `- ${(i % 3) + 1} x ${shelf[i % shelf.length]?.name} Nr${i}`).join("\n");
    const took = await leastMs(() => readMail(text, many, TODAY));
    expect(took).toBeLessThan(1000);
  });
  it("what real mails do: a quoted head with a day, remarks in brackets, a kit as its whole, a closing with the name, hours at the end of a sentence", () => {
    const m = read(
      "On 28 Nov Kasimir wrote:\n> We'd like the following machine, pick up before Christmas, say 22nd Dec at 10:00.\n> * 32 GB RAM (2 sticks), 6000\n> * 1x 2TB M.2 SSD (the fast one you had last time)\n> Call me: +49 (0)171 / 555 04 22\n> lg Kasimir",
    );
    expect(m.due).toMatchObject({ day: "2026-12-22", hour: "10:00" });
    expect(m.client).toMatchObject({ name: "Kasimir", phone: "+49 (0)171 / 555 04 22" });
    const parts = m.lines.filter((l) => l.as === "part");
    expect(parts.map((l) => [l.kind, l.count, l.said.sizeGb])).toEqual([
      ["memory", 2, 16],
      ["drive", 1, 2000],
    ]);
    expect(read("- 64GB kit of 2").lines[0]).toMatchObject({ count: 2, said: { sizeGb: 32 } });
    expect(read("- RAM 32 GB (2x16 GB)").lines[0]).toMatchObject({ count: 2, said: { sizeGb: 16 } });
    // What does not add up is no kit.
    expect(read("- RAM 32 GB (2x32 GB)").lines[0]?.count).toBe(2);
    expect(read("- 2x 8GB DDR5").lines[0]).toMatchObject({ as: "part", kind: "memory", count: 2 });
  });
  it("a price beside an amount is that of one, a sum that of all; noon is an hour; two screens are two", () => {
    const table = (head: string) => read(`Qty;Item;${head}\n3;Whirrow 140;17,90`).lines.find((l) => l.as === "part")?.price;
    expect([table("Price"), table("Unit price"), table("Total"), table("Einzelpreis"), table("Summe")]).toEqual([53.7, 53.7, 17.9, 53.7, 17.9]);
    expect(read("Wir brauchen ihn bis spätestens 15.12. mittags.").due).toMatchObject({ day: "2026-12-15", hour: "12:00" });
    expect(read("Bildschirme haben wir (je 2 Stück 24 Zoll 1080p HDMI).").monitors).toMatchObject([{ count: 2, widthPx: 1920 }]);
  });
});
