import { describe, expect, it } from "vitest";
import { wiringFile } from "../../server/documents/wiring-file";
import { planJob } from "../../server/plan/plan-job";
import { takeConnections } from "../../server/plan/take-connections";
import { carryOut } from "../../server/unit/action";
import { make, testDatabase } from "./setup";

const db = testDatabase(async (d) => planJob(d.em(), "FS-1041", await d.by(), make));

const take = async (text: string) => carryOut(db.em(), await db.by(), takeConnections, { number: "FS-1041", text });

describe("the wiring as files", () => {
  it("a PDF of several pages that says its job; CSV, SVG and JSON of the same wiring; nothing of a job that is not there", async () => {
    const pdf = (await wiringFile(db.em(), "FS-1041", "pdf")) as Buffer;
    expect(pdf.subarray(0, 5).toString("latin1")).toBe("%PDF-");
    expect(pdf.subarray(-6).toString("latin1")).toContain("%%EOF");
    expect((pdf.toString("latin1").match(/\/Type \/Page\b/g) ?? []).length).toBeGreaterThanOrEqual(3);
    const csv = String(await wiringFile(db.em(), "FS-1041", "csv"));
    const v = await db.view("FS-1041");
    expect(csv.trim().split("\r\n")).toHaveLength(1 + v.build.connections.length);
    expect(String(await wiringFile(db.em(), "FS-1041", "svg"))).toMatch(/^<svg .*<\/svg>\n$/s);
    const build = JSON.parse(String(await wiringFile(db.em(), "FS-1041", "json")));
    expect(build).toMatchObject({ format: "imbra-build", version: 1 });
    expect(build.connections).toHaveLength(v.build.connections.length);
    expect(await wiringFile(db.em(), "FS-9999", "csv")).toBeUndefined();
  });
  it("a job without a plan has its sheet too: everything is free, and says why", async () => {
    const pdf = (await wiringFile(db.em(), "FS-1043", "pdf")) as Buffer;
    expect(pdf.length).toBeGreaterThan(5000);
  });
});

describe("a connection list read back", () => {
  it("fixes what it says; read again, it is so already; a plan made then keeps it", async () => {
    const csv = String(await wiringFile(db.em(), "FS-1041", "csv"));
    const [head, ...lines] = csv.trim().split("\r\n");
    const fans = lines.filter((l) => /SYS_FAN/.test(l));
    expect(fans.length).toBeGreaterThan(0);
    const text = [head, ...fans, "1,x,y,z,,planned,0,,r,ghost:lead,board:CPU_FAN,"].join("\r\n");
    expect(await take(text)).toEqual({ ok: true, value: { fixed: fans.length, same: 0, left: [expect.stringContaining('no lead "ghost:lead"')] } });
    expect(await take(text)).toMatchObject({ ok: true, value: { fixed: 0, same: fans.length } });
    const before = (await db.view("FS-1041")).build.connections.filter((c) => c.state === "fixed");
    expect(before).toHaveLength(fans.length);
    await planJob(db.em(), "FS-1041", await db.by(), make);
    const after = (await db.view("FS-1041")).build.connections.filter((c) => c.state === "fixed");
    expect(after.map((c) => [c.lead, c.port])).toEqual(before.map((c) => [c.lead, c.port]));
  }, 60_000);
  it("a file that is no list changes nothing", async () => {
    const before = (await db.view("FS-1041")).build.connections;
    expect(await take("who,what\n1,2")).toMatchObject({ ok: false, sentence: expect.stringContaining('no column "lead"') });
    expect(await take("")).toMatchObject({ ok: false });
    expect((await db.view("FS-1041")).build.connections).toEqual(before);
  });
});
