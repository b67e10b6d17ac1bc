import { spawnSync } from "node:child_process";
import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import { given, T } from "../tests/fixtures/small";
import { imbra as run } from "./commands";

/** What a command says, in this process. */
const imbra = (args: string[], input = "") => run(args, () => input);
/** The same as somebody types it: a process of its own. */
const typed = (args: string[], input = "") => spawnSync(process.execPath, ["scripts/imbra.mjs", ...args], { encoding: "utf8", input });
const folder = mkdtempSync(join(tmpdir(), "imbra-cli-"));
const file = (name: string, text: string) => {
  const p = join(folder, name);
  writeFileSync(p, text);
  return p;
};

describe("imbra on the command line", () => {
  it("plan: JSON out, exit 0, and its build goes back in", async () => {
    const r = typed(["plan", "examples/fs-1041-self-contained.json"]);
    expect([r.status, r.stderr]).toEqual([0, ""]);
    const out = JSON.parse(r.stdout) as { status: string; build: { connections: { state: string }[] } };
    expect(out.status).toBe("proved");
    const plugged = JSON.stringify({ ...out.build, connections: out.build.connections.map((c) => ({ ...c, state: "plugged" })) });
    const seen = typed(["power-on", "-"], plugged);
    expect([seen.status, JSON.parse(seen.stdout).verdict]).toEqual([0, "If you press now: it starts, all fans turn."]);
    expect((await imbra(["check", "-"], plugged)).status).toBe(0);
  });
  it("plan says what is tied back, what to order and why; what it prints goes into the other commands as it is", async () => {
    const r = await imbra(["plan", "examples/fs-1047.json", "--deadline", "20"]);
    const out = JSON.parse(r.stdout) as {
      tiedBack: { end: string; reason: string }[];
      order: { because: string }[];
      ways: { words: string[] } | null;
    };
    expect(out.tiedBack.length).toBeGreaterThan(0);
    for (const t of out.tiedBack) expect(t.reason).toMatch(/tie/);
    for (const o of out.order) expect(o.because.length).toBeGreaterThan(5);
    expect((await imbra(["check", "-"], r.stdout)).status).toBe((await imbra(["check", "-"], JSON.stringify(JSON.parse(r.stdout).build))).status);
    expect(JSON.parse((await imbra(["fit", "-"], r.stdout)).stdout).clearances.length).toBeGreaterThan(0);
  });
  it("why and places: the reason, the next best, and every place with its cost", async () => {
    const why = JSON.parse((await imbra(["why", "examples/fs-1048.json", "fan-rear:lead"])).stdout) as {
      why: string;
      words: string;
      nextBest: { cost: object };
    };
    expect(why.why.length).toBeGreaterThan(10);
    expect(why.words).toMatch(/^Next best: /);
    const places = JSON.parse((await imbra(["places", "examples/fs-1044.json", "fn-02"])).stdout) as {
      words: string;
      cost: Record<string, number>;
    }[];
    expect(places[0]?.words).toBe("nothing more");
    expect(places.every((p) => p.words.length > 3 && Number.isInteger(p.cost.lengthCm))).toBe(true);
    expect(await imbra(["why", "examples/fs-1044.json", "none"])).toMatchObject({ status: 2, stderr: expect.stringContaining("no such lead") });
    expect(await imbra(["plan", "examples/fs-1044.json", "--deadline", "soon"])).toMatchObject({
      status: 2,
      stderr: expect.stringContaining("--deadline"),
    });
  });
  it("fit: clearances worst first with their numbers, standoffs, air, order list; exit 0 when nothing stops", async () => {
    const r = await imbra(["fit", "examples/fs-1047.json"]);
    expect([r.status, r.stderr]).toEqual([0, ""]);
    const out = JSON.parse(r.stdout) as {
      clearances: { left: number; need: number; has: number; unit: string }[];
      standoffs: { add: { id: string }[]; remove: { id: string }[] };
      air: { inM3h: number; outM3h: number; fans: { part: string }[] };
      orderList: { because: string }[];
      findings: { rule: string; severity: string }[];
    };
    // Slots are weighed by their pitch, 20.32 mm.
    const left = out.clearances.map((c) => (c.unit === "slots" ? c.left * 20.32 : c.left));
    expect(left).toEqual([...left].sort((a, b) => a - b));
    for (const c of out.clearances) expect(c.left).toBeCloseTo(c.has - c.need, 1);
    expect(out.standoffs.remove.map((h) => h.id)).toEqual(["B", "R", "S"]);
    expect(out.air.fans.every((f) => typeof f.part === "string")).toBe(true);
    expect(out.air.inM3h).toBeGreaterThan(0);
    expect(out.orderList.every((i) => i.because.length > 5)).toBe(true);
    expect(out.findings.map((f) => f.rule)).toContain("standoffs");
  });
  it("fit: exit 1 when something does not fit, and the sentence says by how much", async () => {
    const file = JSON.parse(readFileSync("examples/fs-1041-self-contained.json", "utf8")) as {
      partTypes: { kind: string; body: Record<string, unknown> }[];
    };
    for (const t of file.partTypes) if (t.kind === "card") t.body.widthMm = 356;
    const r = await imbra(["fit", "-"], JSON.stringify(file));
    expect(r.status).toBe(1);
    expect(JSON.parse(r.stdout).findings[0]).toMatchObject({
      rule: "card-fit",
      severity: "stop",
      message: expect.stringContaining("356 of 355 mm, 1 mm too much"),
    });
  });
  it("power: moments, rails, plugs; exit 1 when the supply does not carry it", async () => {
    const r = await imbra(["power", "examples/fs-1043.json"]);
    expect(r.status).toBe(0);
    const out = JSON.parse(r.stdout) as {
      moments: { name: string; dcW: number; mainsW: number; heatW: number }[];
      rails: { rail: string }[];
      supply: { name: string };
    };
    expect(out.moments.map((m) => m.name)).toEqual(["idle", "typical", "peak", "start"]);
    for (const m of out.moments) expect(m.mainsW - m.dcW).toBeCloseTo(m.heatW, 6);
    expect(out.rails.map((x) => x.rail)).toEqual(["v12", "v5", "v33"]);
    const file = JSON.parse(readFileSync("examples/fs-1041-self-contained.json", "utf8")) as {
      partTypes: { kind: string; ratings: Record<string, unknown> }[];
    };
    for (const t of file.partTypes) if (t.kind === "supply") t.ratings.powerW = 450;
    const weak = await imbra(["power", "-"], JSON.stringify(file));
    expect(weak.status).toBe(1);
    expect(JSON.parse(weak.stdout).findings[0].message).toMatch(/The machine draws \d+ W of 450 W at peak/);
  });
  it("exit 1 when a finding says stop", async () => {
    const bare = typed(["check", "examples/fs-1041.json"]);
    expect(bare.status).toBe(1);
    expect(JSON.parse(bare.stdout).findings[0].severity).toBe("stop");
    expect((await imbra(["power-on", "examples/fs-1041.json"])).status).toBe(1);
  });
  it("a build of its own from standard input, nothing of the demo's in it", async () => {
    const { build } = given(
      [T.board("zz", [T.header("X9", 10)]), T.fan("q", 0.2)],
      [
        { id: "b", type: "zz" },
        { id: "w", type: "q" },
      ],
    );
    const r = await imbra(["plan", "-"], JSON.stringify(build));
    expect(JSON.parse(r.stdout).connections).toEqual([expect.objectContaining({ lead: "w:lead", port: "b:X9" })]);
    expect(r.status).toBe(1); // no power supply: a finding says stop
  });
  it.each([
    ["not JSON", "{ nope", /^line 1: this is not JSON/],
    ["a missing field", JSON.stringify({ format: "imbra-build", version: 1, parts: [{ id: "a", type: "b" }] }), /^name: this field is missing\.$/m],
    ["nothing at all", "", /^the file: it is empty/],
    ["too much", `"${"x".repeat(4_000_001)}"`, /^the file: \d+ characters; at most/],
  ])("exit 2 and a sentence: %s", async (_, text, words) => {
    const r = typed(["plan", file("bad.json", text)]);
    expect(r.status).toBe(2);
    expect(r.stdout).toBe("");
    expect(r.stderr).toMatch(words);
    expect(r.stderr).not.toMatch(/\n\s+at /);
  });
  it("exit 2 for a file that is not there, an unknown command, a bad shelf", async () => {
    expect(await imbra(["plan", join(folder, "none.json")])).toMatchObject({ status: 2, stderr: expect.stringContaining("cannot be read") });
    expect(await imbra(["fly", "examples/fs-1041.json"])).toMatchObject({ status: 2, stderr: expect.stringContaining("Usage:") });
    expect((await imbra(["plan", "examples/fs-1041.json", "--shelf", folder])).status).toBe(2);
  });
  it("the examples are what the readme says: JSON with the format's name", async () => {
    expect(JSON.parse(readFileSync("examples/fs-1046.json", "utf8")).format).toBe("imbra-build");
  });
  it("routes: every lead with its way, length and folds; draw: the machine from either side as SVG; a side that is none is refused", async () => {
    const planned = (await imbra(["plan", "examples/fs-1044.json"])).stdout;
    const out = JSON.parse((await imbra(["routes", "-"], planned)).stdout) as {
      leads: {
        tag: string;
        needMm: number;
        lengthMm: number;
        surplusMm: number;
        way: { side: string; points: number[][] }[] | null;
        words: string[];
      }[];
      cutouts: { id: string; leads: string[] }[];
      behind: { thicknessMm: number; roomMm: number } | null;
    };
    expect(out.leads.length).toBeGreaterThan(10);
    for (const l of out.leads) expect([l.tag, l.surplusMm, l.words.length > 0]).toEqual([l.tag, l.lengthMm - l.needMm, true]);
    expect(out.leads.some((l) => l.way?.some((s) => s.side === "behind"))).toBe(true);
    expect(out.cutouts.flatMap((c) => c.leads).length).toBeGreaterThan(0);
    expect(out.behind?.roomMm).toBe(15);
    const front = await imbra(["draw", "-"], planned);
    const behind = await imbra(["draw", "-", "--sheet", "behind"], planned);
    expect([front.status, behind.status, front.stdout.startsWith("<svg"), behind.stdout.startsWith("<svg")]).toEqual([0, 0, true, true]);
    expect(behind.stdout).not.toBe(front.stdout);
    expect(await imbra(["draw", "-", "--sheet", "left"], planned)).toMatchObject({
      status: 2,
      stderr: expect.stringContaining("--sheet left: give front or behind"),
    });
  });
  it("intake: a mail's lines, who, when, for how much; its build goes into the other commands; exit 1 where something is to be asked", async () => {
    const read = await imbra(["intake", "examples/mails/studio.txt"]);
    expect(read.status).toBe(1);
    const out = JSON.parse(read.stdout);
    expect([out.understood, out.client.name, out.due.hour, out.budget]).toEqual([{ parts: 17, known: 9, new: 8 }, "Berit Okonski", "15:00", 2000]);
    expect(out.matters.length).toBeGreaterThan(3);
    for (const m of out.matters)
      expect([m.field, m.question.endsWith("?"), m.range.length, m.decides.every((d: { what: string[] }) => d.what.length > 0)]).toEqual([
        m.field,
        true,
        m.decides.length,
        true,
      ]);
    for (const command of ["plan", "fit", "check", "power"]) {
      const went = await imbra([command, "-"], JSON.stringify(out.build));
      expect([command, went.stderr]).toEqual([command, ""]);
    }
    const known = await imbra(
      ["intake", "-"],
      "- Harbour mid tower\n- Heron T40\n- Quillane 8-core\n- Coldwharf tower\n- 2 x 16 GB 6000\n- Mossgate 650 M\n- Swift 1 TB NVMe",
    );
    expect([known.status, JSON.parse(known.stdout).assumed]).toEqual([0, 0]);
    expect(await imbra(["intake", "-"], "   ")).toMatchObject({ status: 2, stderr: expect.stringMatching(/The text is empty/) });
  }, 120_000);
  it("soak: a log judged, with what was not understood; one that is none is bad input", async () => {
    const log = file("log.csv", `Time,CPU temp °C,Colour\n${Array.from({ length: 1900 }, (_, t) => `${t},61,blue`).join("\n")}`);
    const held = await imbra(["soak", "examples/fs-1041.json", log]);
    expect([held.status, JSON.parse(held.stdout)]).toMatchObject([
      0,
      { verdict: "held", maxima: [{ name: "CPU temp °C", value: 61, limit: 95 }], unknown: ["Colour"] },
    ]);
    expect(await imbra(["soak", "examples/fs-1041.json", "-"], "no log")).toMatchObject({
      status: 2,
      stderr: expect.stringMatching(/fewer than two/),
    });
    expect(await imbra(["soak", "examples/fs-1041.json"])).toMatchObject({ status: 2 });
  });
  it("type: a part type judged, and what of it is assumed", async () => {
    const { build } = JSON.parse((await imbra(["intake", "-"], "- Case: Vantage Airbox 9")).stdout);
    const type = await imbra(["type", "-"], JSON.stringify(build.partTypes.find((t: { kind: string }) => t.kind === "case")));
    expect(type.status).toBe(0);
    expect(JSON.parse(type.stdout)).toMatchObject({
      kind: "case",
      contradictions: [],
      assumed: expect.arrayContaining([expect.objectContaining({ field: "cardMm" })]),
    });
    expect(await imbra(["type", "-"], "{}")).toMatchObject({ status: 2 });
  });
  it("order: the steps with their reasons, turns and schools; a half-built machine is asked about; undo says what comes out", async () => {
    interface Said {
      steps: { id: string; kind: string; posture: string | null; done: boolean; after: { step: string; kind: string; why: string }[] }[];
      turns: number;
      lies: string;
      conflicts: unknown[];
      compare: { school: string; turns: number }[];
    }
    const planned = JSON.parse((await imbra(["plan", "examples/fs-1046.json"])).stdout) as {
      build: { connections: { lead: string; state: string }[] };
    };
    const order = async (build: object, ...more: string[]) => {
      const r = await imbra(["order", "-", ...more], JSON.stringify(build));
      expect([r.status, r.stderr]).toEqual([0, ""]);
      return JSON.parse(r.stdout) as Said;
    };
    const whole = await order(planned);
    expect(whole.conflicts).toEqual([]);
    expect(whole.steps[0]?.posture).toBeNull();
    expect(whole.steps.every((s) => !s.done)).toBe(true);
    expect(whole.steps.find((s) => s.id === "board-in")?.after).toContainEqual({
      step: "io-shield",
      kind: "covers",
      why: "the board stands before it",
    });
    expect(whole.compare.filter((c) => c.school === "dressing")).toHaveLength(3);
    expect((await order(planned, "--posture", "behind-up")).lies).toBe("behind-up");
    // Built, but for the shield.
    const ids = whole.steps.map((s) => s.id).filter((id) => id !== "io-shield" && !id.startsWith("plug:"));
    const built = { ...planned.build, done: ids, connections: planned.build.connections.map((c) => ({ ...c, state: "plugged" })) };
    expect((await order(built)).steps.filter((s) => !s.done).map((s) => s.id)).toEqual(["io-shield"]);
    const undo = JSON.parse((await imbra(["undo", "-", "io-shield"], JSON.stringify(built))).stdout) as {
      out: { step: string }[];
      leads: number;
      back: { step: string }[];
    };
    expect(await order({ ...built, done: [...ids, "mount:gone"] })).toMatchObject({
      unknown: [expect.stringMatching(/^mount:gone is said to be done/)],
    });
    expect(undo.out.at(-1)?.step).toBe("board-in");
    expect(undo.leads).toBeGreaterThan(8);
    expect(undo.back[0]?.step).toBe("io-shield");
    expect(await imbra(["undo", "-", "mount:nobody"], JSON.stringify(built))).toMatchObject({
      status: 2,
      stderr: expect.stringContaining("has no such step"),
    });
    expect(await imbra(["order", "-", "--posture", "upside"], JSON.stringify(built))).toMatchObject({
      status: 2,
      stderr: expect.stringContaining("--posture upside: give standing"),
    });
  });
  it.each([
    ["nothing-on-the-button", /power switch|spare supply/i],
    ["three-dark-fans", /Fan hub B|PW-2[78]/],
    ["no-picture", /monitor/i],
    ["off-under-load", /film/],
  ])("diagnose: %s", async (name, first) => {
    const r = await imbra(["diagnose", `examples/fault-${name}.json`]);
    expect([r.status, r.stderr]).toEqual([1, ""]);
    const out = JSON.parse(r.stdout) as {
      suspects: { share: number; why: string }[];
      next: { words: string; minutes: number; expectedMinutes: number; outcomes: { share: number }[] };
      policy: { outcomes: { follows: { outcomes: unknown[] } | null }[] };
      notes: string[];
    };
    expect(out.next.words).toMatch(first);
    expect(out.suspects[0]?.why).toMatch(/^It alone explains/);
    expect(out.next.expectedMinutes).toBeGreaterThanOrEqual(out.next.minutes);
    expect(out.next.outcomes.reduce((n, o) => n + o.share, 0)).toBeCloseTo(1, 1);
    expect(out.policy.outcomes.length).toBeGreaterThan(1);
    expect(out.notes).toEqual([]);
  });
  it("diagnose: what does not belong to the machine and what contradicts itself is said, and the rest counts", async () => {
    const build = JSON.parse(readFileSync("examples/fault-no-picture.json", "utf8")) as { observations: object[] };
    const odd = {
      ...build,
      observations: [...build.observations, { line: "no-such-line", value: "lit" }, { line: "standby", value: "dark" }],
      actions: [{ action: "swap:nobody", result: "no change" }],
    };
    const r = await imbra(["diagnose", "-"], JSON.stringify(odd));
    const out = JSON.parse(r.stdout) as { notes: string[]; next: unknown };
    expect(out.notes.join(" ")).toMatch(/no-such-line.*left out.*seen in two ways.*swap:nobody/);
    expect(out.next).not.toBeNull();
    const bad = await imbra(["diagnose", "-"], JSON.stringify({ ...build, observations: [{ line: 7 }] }));
    expect([bad.status, bad.stderr.length > 10]).toEqual([2, true]);
  });
});

describe("what leaves the shop", () => {
  const file = () => JSON.parse(readFileSync("examples/handover-recording-room.json", "utf8")) as { handover: Record<string, unknown> };
  const handed = async (change: object) => {
    const build = file();
    const r = await imbra(["handover", "-"], JSON.stringify({ ...build, handover: { ...build.handover, ...change } }));
    return {
      ...r,
      out: JSON.parse(r.stdout || "{}") as {
        ready: boolean;
        missing: { id: string }[];
        soldAgainstBuilt: { state: string; word: unknown }[];
        bag: unknown[];
      },
    };
  };
  it("handover: a difference without a word keeps it here, and a loan whoever says so; with the word and the loan out it goes", async () => {
    const silent = await handed({ words: {} });
    expect([silent.status, silent.out.ready, silent.out.missing.map((m) => m.id)]).toEqual([1, false, ["sold"]]);
    expect(silent.out.soldAgainstBuilt.map((r) => r.state).sort()).toContain("better");
    const lent = await handed({ loans: [{ what: "Start drive 2", owner: "the shop" }] });
    expect([lent.status, lent.out.missing.map((m) => m.id)]).toEqual([1, ["loan Start drive 2 the shop"]]);
    const goes = await handed({});
    expect([goes.status, goes.out.ready, goes.out.missing, goes.stderr]).toEqual([0, true, [], ""]);
    expect(goes.out.bag.length).toBeGreaterThan(2);
    const odd = await handed({ way: "flies" });
    expect([odd.status, odd.stderr]).toEqual([2, expect.stringContaining("way")]);
  });
  it("archive and verify: whole as it was made; changed, it says what", async () => {
    const made = await imbra(["archive", "examples/fs-1042.json"]);
    expect([made.status, made.stderr, made.bytes?.subarray(0, 2).toString()]).toEqual([0, "", "PK"]);
    const at = join(folder, "a.zip");
    writeFileSync(at, made.bytes ?? "");
    const whole = await imbra(["verify", at]);
    expect([whole.status, JSON.parse(whole.stdout)]).toMatchObject([0, { number: "FS-1042", whole: true, changed: [] }]);
    const bytes = Buffer.from(made.bytes ?? "");
    writeFileSync(at, bytes.subarray(0, bytes.length / 2));
    expect(await imbra(["verify", at])).toMatchObject({ status: 2, stderr: expect.stringContaining("cut off") });
    expect(await imbra(["verify", join(folder, "none.zip")])).toMatchObject({ status: 2 });
  });
  it("labels: a PDF on a sheet by its name; another name is said with those there are", async () => {
    const r = await imbra(["labels", "examples/handover-recording-room.json", "--kind", "leads", "--sheet", "a4-38x21"]);
    expect([r.status, r.stderr, r.bytes?.subarray(0, 5).toString()]).toEqual([0, "", "%PDF-"]);
    expect(await imbra(["labels", "examples/fs-1042.json", "--kind", "leads", "--sheet", "napkin"])).toMatchObject({
      status: 2,
      stderr: expect.stringMatching(/--sheet napkin: give a4-70x37/),
    });
    expect(await imbra(["labels", "examples/fs-1042.json", "--kind", "dogs", "--sheet", "a4-38x21"])).toMatchObject({ status: 2 });
  });
});
