import { readFileSync } from "node:fs";
import { MikroORM } from "@mikro-orm/postgresql";
import { type Build, typeLookup } from "../../core/assembly";
import { plan } from "../../core/plan";
import { type EntityManager, ormConfig, Person, type PersonRow } from "../../db";
import { jobFromFile } from "../../server/job/from-file";
import { planJob } from "../../server/plan/plan-job";
import { carryOut } from "../../server/unit/action";
import { renewHeads } from "../../server/views/heads";

/** Plans by what was asked for: files of this process ask for the same ones. */
const made = new Map<string, ReturnType<typeof plan>>();
const make = async (build: Build) => {
  const key = JSON.stringify(build);
  const known = made.get(key) ?? plan(build, typeLookup(build, []));
  made.set(key, known);
  return known;
};

/**
 * The number of a job stored from a build file and planned, by the server's own actions without a screen: for tests that are about
 * neither. Reading in and planning on the screen are tested in wiring, large, ways and whole-job.
 * @throws with the server's sentence where it refuses.
 */
export async function plannedJob(file: string): Promise<string> {
  const orm = await MikroORM.init(ormConfig(process.env.DATABASE_URL ?? ""));
  try {
    const em = () => orm.em.fork() as EntityManager;
    const by = (await em().findOneOrFail(Person, { name: "Runa Thistlewood" })) as PersonRow;
    const stored = await carryOut(em(), by, jobFromFile, { text: readFileSync(file, "utf8") });
    if (!stored.ok) throw new Error(stored.sentence);
    const planned = await planJob(em(), stored.value, by, make);
    if (!planned.ok) throw new Error(planned.sentence);
    await renewHeads(em());
    return stored.value;
  } finally {
    await orm.close();
  }
}
