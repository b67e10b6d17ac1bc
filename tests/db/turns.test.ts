import { randomUUID } from "node:crypto";
import { afterAll, beforeAll, describe, expect, it, vi } from "vitest";
import { LogEntry, Person, type PersonRow } from "../../db";
import { note } from "../../server/bench/note";
import { isUntouched, touched } from "../../server/kernel/lock";
import { sealOf } from "../../server/kernel/seal";
import { hashOfToken, type Seat, seatOf } from "../../server/kernel/seat";
import type { Door } from "../../server/kernel/who";
import { changePerson } from "../../server/people/change";
import { endSession } from "../../server/people/end-session";
import { type NowAt, signIn, signOut } from "../../server/people/sign-in";
import { takeOver } from "../../server/people/take-over";
import { people } from "../../server/people/views";
import { carryOut } from "../../server/unit/action";
import { performKept } from "../../server/unit/kept-entry";
import { demoPerson } from "../fixtures/demo-people";
import { testDatabase } from "./setup";

const NUMBER = "FS-1041";
const db = testDatabase();
beforeAll(() => {
  vi.stubEnv("IMBRA_SECRET", "a secret of thirty-two characters");
});
afterAll(() => {
  vi.unstubAllEnvs();
});

const person = async (name: string) => (await db.em().findOneOrFail(Person, { name })) as PersonRow;

/** A tablet, and what its browser keeps: its cookie, and the turn of whoever works at it. */
class Tablet {
  readonly device = randomUUID();
  token = "";
  turn: NowAt | undefined;
  seat(): Promise<Seat | undefined> {
    return seatOf(this.token, this.device);
  }
  async door(): Promise<Door> {
    return {
      address: "10.0.0.7",
      label: "a tablet",
      device: this.device,
      seat: await this.seat(),
      give: async () => {
        this.token = randomUUID();
        return { tokenHash: hashOfToken(this.token) };
      },
      take: async () => {
        this.token = "";
      },
    };
  }
  async signIn(name: string): Promise<NowAt> {
    const r = await signIn.run(db.em(), { name, password: demoPerson(name).password }, await this.door());
    if (!r.ok) throw new Error(r.sentence);
    this.turn = r.value;
    return r.value;
  }
  async pin(name: string): Promise<NowAt> {
    const { id } = await person(name);
    const r = await takeOver.run(db.em(), { person: id, secret: demoPerson(name).pin ?? "", by: "pin" }, await this.door());
    if (!r.ok) throw new Error(r.sentence);
    this.turn = r.value;
    return r.value;
  }
  /** A note as it is pressed here now: sealed by whoever's turn it is. */
  press(text: string, madeAtMs = Date.now(), turn = this.turn) {
    const input = { number: NUMBER, text, kind: "note" };
    const key = randomUUID();
    const seal = turn && sealOf(turn.turn.secret, { turn: turn.turn.id, key, madeAtMs, action: "bench.note", input });
    return { input, entry: { key, madeAtMs, ...(turn && seal ? { turn: turn.turn.id, seal } : {}) } };
  }
  send({ input, entry }: { input: unknown; entry: object }) {
    return performKept(async () => seatOf(this.token, this.device), note, input, { ...entry, sentAtMs: Date.now() });
  }
}
const authorOf = async (text: string) => {
  const e = await db.em().findOne(LogEntry, { kind: "note", data: { text } }, { populate: ["by"] });
  return e?.by.name;
};

describe("nobody else's name", () => {
  it("a reader who sits down at a tablet writes under no name, neither said nor sealed before", async () => {
    const tablet = new Tablet();
    await tablet.signIn("Ebo Larkmoor");
    const waits = tablet.press("Ebo pressed this before he left");
    const ebo = tablet.turn;
    await signOut.run(db.em(), {}, await tablet.door());
    await tablet.signIn("Odo Fennimark");
    const { id } = await person("Ebo Larkmoor");
    for (const forged of [
      { input: { number: NUMBER, text: "forged", kind: "note" }, entry: { key: randomUUID(), by: id } },
      { input: { number: NUMBER, text: "forged", kind: "note" }, entry: { key: randomUUID(), by: id, madeAtMs: Date.now() - 60_000 } },
      tablet.press("forged"),
    ])
      expect(await tablet.send(forged)).toMatchObject({ ok: false });
    // What Ebo pressed is not lost: it stays on the tablet until somebody sits there who records.
    expect(await tablet.send(waits)).toMatchObject({ ok: false, later: "who", sentence: expect.stringContaining("sends no entries of others") });
    expect([await authorOf("forged"), await authorOf("Ebo pressed this before he left")]).toEqual([undefined, undefined]);
    await tablet.signIn("Mirel Quist");
    expect(await tablet.send(waits)).toMatchObject({ ok: true });
    expect(await authorOf("Ebo pressed this before he left")).toBe("Ebo Larkmoor");
    expect(ebo?.id).toBe(id);
  });
  it("a colleague writes under their own: another's name needs the secret of a turn that they really had here", async () => {
    const [tablet, elsewhere] = [new Tablet(), new Tablet()];
    await elsewhere.signIn("Ebo Larkmoor");
    await tablet.signIn("Ebo Larkmoor");
    const ebo = tablet.turn as NowAt;
    const good = tablet.press("sealed while his turn lasted");
    await tablet.pin("Mirel Quist");
    const { id } = await person("Ebo Larkmoor");
    const said = { input: { number: NUMBER, text: "said only", kind: "note" }, entry: { key: randomUUID(), by: id } };
    const guessed = tablet.press("guessed", Date.now(), { ...ebo, turn: { id: ebo.turn.id, secret: "a guess" } });
    const other = tablet.press("of another device", Date.now(), elsewhere.turn);
    const changed = { ...good, input: { ...good.input, text: "changed on the way" } };
    const moved = { ...good, entry: { ...good.entry, madeAtMs: good.entry.madeAtMs + 1 } };
    const again = { ...good, entry: { ...good.entry, key: randomUUID() } };
    for (const bad of [said, guessed, other, changed, moved, again])
      expect([bad.input.text, await tablet.send(bad)]).toEqual([
        bad.input.text,
        expect.objectContaining({ ok: false, sentence: expect.stringContaining("proves who pressed this") }),
      ]);
    expect(await tablet.send(good)).toMatchObject({ ok: true });
    expect(await authorOf("sealed while his turn lasted")).toBe("Ebo Larkmoor");
    expect(await tablet.send(tablet.press("her own"))).toMatchObject({ ok: true });
    expect(await authorOf("her own")).toBe("Mirel Quist");
  });
  it("rights by PIN stay rights by PIN, and a role that changed counts as it is now", async () => {
    const tablet = new Tablet();
    await tablet.signIn("Ebo Larkmoor");
    await tablet.pin("Mirel Quist");
    const [turn] = await db.em().execute<{ by_pin: boolean }[]>(`select "by_pin" from "turn" where "id" = ?`, [tablet.turn?.turn.id]);
    expect(turn).toEqual({ by_pin: true });
    const waits = tablet.press("before she became a reader");
    await db.em().nativeUpdate(Person, { name: "Mirel Quist" }, { role: "reader" });
    await tablet.signIn("Ebo Larkmoor");
    expect(await tablet.send(waits)).toMatchObject({ ok: false, sentence: expect.stringContaining("is a reader and may not do this") });
    await db.em().nativeUpdate(Person, { name: "Mirel Quist" }, { role: "technician" });
  });
  it("a sign-in that a lead ended ends the turn at it: what is made later is nobody's, what was made before is kept", async () => {
    const tablet = new Tablet();
    await tablet.signIn("Ebo Larkmoor");
    const before = tablet.press("made before it was ended", Date.now() - 120_000);
    const session = (await tablet.seat())?.session;
    const runa = await person("Runa Thistlewood");
    expect(await carryOut(db.em(), { id: runa.id, name: runa.name, role: "lead" }, endSession, { session })).toMatchObject({ ok: true });
    expect(await tablet.send(before)).toMatchObject({ ok: false, later: "who" });
    await db.em().execute(`update "turn" set "ended_at" = now() - interval '100 seconds' where "id" = ?`, [tablet.turn?.turn.id]);
    const late = tablet.press("made after it was ended");
    await tablet.signIn("Mirel Quist");
    expect(await tablet.send(late)).toMatchObject({ ok: false, sentence: expect.stringContaining("after the sign-in of Ebo Larkmoor was ended") });
    expect(await tablet.send(before)).toMatchObject({ ok: true });
    expect(await authorOf("made before it was ended")).toBe("Ebo Larkmoor");
  });
  it("who leaves takes along what they opened, whoever works there now; the lead's list says who sits there", async () => {
    const tablet = new Tablet();
    await tablet.signIn("Ebo Larkmoor");
    await tablet.pin("Mirel Quist");
    const runa = await person("Runa Thistlewood");
    const lead = { id: runa.id, name: runa.name, role: "lead" };
    const list = await carryOut(db.em(), lead, people, {});
    expect(list.ok && list.value.sessions.filter((s) => s.openedBy === "Ebo Larkmoor" && s.name === "Mirel Quist").length).toBeGreaterThan(0);
    const ebo = await person("Ebo Larkmoor");
    expect(await tablet.send(tablet.press("while he is here"))).toMatchObject({ ok: true });
    await carryOut(db.em(), lead, changePerson, { person: ebo.id, active: false, saw: { role: ebo.role, active: true } });
    expect(await tablet.send(tablet.press("after he left"))).toMatchObject({ ok: false, later: "who" });
    await db.em().nativeUpdate(Person, { name: "Ebo Larkmoor" }, { active: true });
  });
});

describe("an unattended bench", () => {
  it("takes nothing that is not sealed, however old it says that it is", async () => {
    const tablet = new Tablet();
    await tablet.signIn("Ebo Larkmoor");
    await db.em().execute(`update "session" set "acted_at" = now() - interval '3 hours' where "device" = ?`, [tablet.device]);
    const { input } = tablet.press("by somebody who came along");
    const old = { input, entry: { key: randomUUID(), madeAtMs: Date.now() - 3 * 3_600_000 } };
    expect(await tablet.send(old)).toMatchObject({
      ok: false,
      later: "who",
      sentence: expect.stringContaining("Nobody touched this bench for 15 minutes"),
    });
    // Nor what only looks sealed: a seal of no turn, a turn without a seal, a seal that somebody made up.
    const turn = tablet.turn?.turn.id;
    for (const more of [{ seal: "a".repeat(64) }, { turn }, { turn, seal: "a".repeat(64) }])
      expect(await tablet.send({ input, entry: { ...old.entry, key: randomUUID(), ...more } })).toMatchObject({ ok: false });
    expect(await authorOf("by somebody who came along")).toBeUndefined();
    // Sealed when it was pressed, three hours ago, it is his.
    expect(await tablet.send(tablet.press("while he still was here", Date.now() - 3 * 3_600_000))).toMatchObject({ ok: true });
    expect(await authorOf("while he still was here")).toBe("Ebo Larkmoor");
  });
  it("is not opened by a touch, only kept open by one", async () => {
    const seat = { session: randomUUID(), device: randomUUID(), actor: { id: "x", name: "x", role: "lead" }, stamp: "", lockMinutes: 15 };
    const ago = (minutes: number) => new Date(Date.now() - minutes * 60_000);
    expect([10, 15, 17].map((m) => isUntouched({ ...seat, actedAt: ago(m) }, new Date()))).toEqual([false, false, true]);
    expect(isUntouched({ ...seat, lockMinutes: 0, actedAt: ago(600) }, new Date())).toBe(false);
    const tablet = new Tablet();
    await tablet.signIn("Ebo Larkmoor");
    const acted = async () =>
      (
        await db
          .em()
          .execute<{ m: number }[]>(`select round(extract(epoch from now() - "acted_at") / 60)::int as m from "session" where "device" = ?`, [
            tablet.device,
          ])
      )[0]?.m;
    for (const [minutes, after] of [
      [10, 0],
      [17, 17],
    ] as const) {
      await db.em().execute(`update "session" set "acted_at" = now() - ? * interval '1 minute' where "device" = ?`, [minutes, tablet.device]);
      const now = await tablet.seat();
      if (!now) throw new Error("nobody sits there");
      await touched(db.em(), now);
      expect([minutes, await acted()]).toEqual([minutes, after]);
    }
  });
});
