import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { Part, readBuild } from "../../core/assembly";
import { jobFromFile } from "../../server/job/from-file";
import { saveType } from "../../server/shelf/save";
import { carryOut } from "../../server/unit/action";
import { shelf } from "../fixtures/demo";
import { testDatabase } from "./setup";

const db = testDatabase();

/** Something that each field of a part may say; `measured` on a supply. */
const SAYS = {
  label: "as the shop calls it",
  mount: "cage-2",
  zone: "zone-a",
  serial: "AS-WRITTEN-1",
  frame: "outside",
  blows: "out",
  vertical: true,
  lowNoise: true,
  boot: true,
  inArray: true,
  tubes: "front",
  cools: "loop",
  cage: "out",
  standoffsSet: true,
  inCase: true,
  bracket: true,
  fanUpMm: 12,
  firmware: 1.4,
  reused: true,
  measured: [{ what: "depthMm", mm: 161 }],
  price: 12.5,
  from: "client",
} as const;

describe("what a job writes", () => {
  it("is read back the same: every field that a part has", async () => {
    // A field that comes later has to be said here, too.
    expect(Object.keys(SAYS).sort()).toEqual(
      Object.keys(Part.shape)
        .filter((k) => !["id", "type"].includes(k))
        .sort(),
    );
    const file = JSON.parse(readFileSync("examples/fs-1041.json", "utf8")) as { parts: { id: string; type: string }[]; connections?: unknown };
    const parts = file.parts.map((p) => (p.id === "supply" ? { ...p, ...SAYS } : p));
    const made = await carryOut(db.em(), await db.by(), jobFromFile, { text: JSON.stringify({ ...file, parts }) });
    expect(made).toMatchObject({ ok: true });
    const { build } = await db.view(made.ok ? (made.value as string) : "");
    expect(build.parts.find((p) => p.id === "supply")).toEqual({ id: "supply", type: "mossgate-850m", ...SAYS });
    const again = readBuild(JSON.parse(JSON.stringify(build)), []);
    expect(again.ok && again.build.parts).toEqual(build.parts);
  });
  it("an entry that contradicts itself is not stored, with the place", async () => {
    const board = shelf.find((t) => t.id === "tarnbrook-wren-t20");
    if (!board) throw new Error("a board");
    const odd = { ...board, id: "odd-board", ports: board.ports.map((p) => (p.id === "SYS_FAN1" ? { ...p, at: { xMm: 14, yMm: 150 } } : p)) };
    const save = async (type: object) => carryOut(db.em(), await db.by(), saveType, { text: JSON.stringify(type), because: "a new one" });
    expect(await save(odd)).toMatchObject({ ok: false, more: [expect.stringMatching(/^SYS_FAN1 stands inside “Rear sockets”: at 14, 150 mm/)] });
    expect(await save({ ...board, id: "even-board" })).toMatchObject({ ok: true });
  });
});
