import { MikroORM } from "@mikro-orm/postgresql";
import { describe, expect, it, vi } from "vitest";
import { isLost, Job, ormConfig, Person } from "../../db";
import { failed } from "../../server/kernel/failed";
import { jobOf, testDatabase } from "./setup";

const db = testDatabase();

const thrown = (work: () => unknown): Promise<unknown> =>
  Promise.resolve()
    .then(work)
    .then(
      () => undefined,
      (e: unknown) => e,
    );

describe("what a screen is told when something is thrown", () => {
  it("a database that is not there, or goes away in the middle, did not answer: the same may be sent again", async () => {
    const away = await MikroORM.init({ ...ormConfig("postgresql://nobody@127.0.0.1:9/none"), connect: false });
    const refused = await thrown(() => away.em.fork().find(Job, {}));
    await away.close();
    // On a pool of its own, since a pool keeps the line that is dead for the next who asks.
    const cutOff = await MikroORM.init(ormConfig(process.env.DATABASE_URL ?? ""));
    const cut = await thrown(() => cutOff.em.getConnection().execute("select pg_terminate_backend(pg_backend_pid())"));
    await cutOff.close();
    // Cut while nothing is asked: the driver knows by the time that the end of the transaction is to be said.
    const atTheEnd = await MikroORM.init(ormConfig(process.env.DATABASE_URL ?? ""));
    const unended = await thrown(() =>
      atTheEnd.em.fork().transactional(async (em) => {
        const [{ pid }] = (await em.execute("select pg_backend_pid() as pid")) as [{ pid: number }];
        await db.em().execute("select pg_terminate_backend(?)", [pid]);
        await new Promise((resolve) => setTimeout(resolve, 200));
      }),
    );
    await atTheEnd.close();
    for (const e of [refused, cut, unended]) {
      expect(e).toBeInstanceOf(Error);
      expect([(e as Error).message, isLost(e)]).toEqual([expect.any(String), true]);
    }
    const log = vi.spyOn(console, "error").mockImplementation(() => {});
    expect(failed(refused)).toEqual({ ok: false, sentence: "The database did not answer. Nothing was changed. Try again.", later: "again" });
    expect(log.mock.calls).toEqual([[expect.stringMatching(/^The database did not answer: .*ECONNREFUSED.*$/)]]);
    log.mockRestore();
  });
  it("a fault of the server's own is not blamed on the database, nor is a row that the database refuses", async () => {
    const own = await thrown(() => (undefined as unknown as { gone: () => void }).gone());
    const row = await thrown(async () => {
      const em = db.em();
      const job = await jobOf(em, "FS-1041");
      const technician = await em.findOneOrFail(Person, { name: "Mirel Quist" });
      em.create(Job, { ...job, id: undefined, technician } as never);
      await em.flush();
    });
    const log = vi.spyOn(console, "error").mockImplementation(() => {});
    for (const e of [own, row, "no error at all"]) {
      expect(e).toBeDefined();
      expect(failed(e, "No plan was stored.").sentence).toMatch(/^The server failed at this and wrote why into its log\. No plan was stored\. /);
    }
    expect(log.mock.calls).toEqual([[own], [row], ["no error at all"]]);
    log.mockRestore();
  });
});
