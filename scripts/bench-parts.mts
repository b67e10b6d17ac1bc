import { MikroORM } from "@mikro-orm/postgresql";
import { buildGraph, readBuildText } from "../core/assembly";
import { judge, withType } from "../core/whatif";
import type { EntityManager } from "../db";
import { migratingConfig } from "../db/migrating";
import { seed } from "../db/seed";
import { buildOfJob, findJob } from "../server/build/build-of-job";
import { searchShelf } from "../server/shelf/search";
import { demo, shelf } from "../tests/fixtures/demo";

const middle = (times: number[]) => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)] ?? 0;
function timed(times: number[], work: () => unknown): void {
  const t = performance.now();
  work();
  times.push(performance.now() - t);
}

const { build, types } = demo("fs-1043");
const bare = { ...build, connections: [] };
// From nothing: the job's own file, as the application writes it, with the entries that it was planned with.
const used = [...new Set([...bare.parts, ...bare.accessories].map((p) => p.type))].flatMap((id) => types(id) ?? []);
const own = JSON.stringify({ ...bare, partTypes: used });
const short = JSON.stringify(bare);
const read = (text: string, known: typeof shelf) => {
  const r = readBuildText(text, known);
  if (!r.ok) throw new Error(r.faults.join());
  return judge(r.graph);
};
const fromOwnFile = () => read(own, []);
/** The entries are parsed and in memory already. */
const fromShortFile = () => read(short, shelf);
const fromBuild = () => judge(buildGraph(bare, types));
const now = fromBuild();
/** Every part in turn, with the first other type of its kind on the shelf in its place. */
const changes = bare.parts.flatMap((part) => {
  const kind = types(part.type)?.kind;
  const entry = shelf.find((t) => t.kind === kind && t.id !== part.type);
  if (!entry) return [];
  const other = withType(bare, types, part.id, entry);
  return [{ kind: entry.kind, again: () => judge(buildGraph(other.build, other.types, now.graph)), times: [] as number[] }];
});
const url = process.env.DATABASE_URL;
const orm = url ? await MikroORM.init(migratingConfig(url)) : undefined;
const em = () => orm?.em.fork() as EntityManager;
if (orm) {
  await orm.em.getConnection().execute("drop schema public cascade; create schema public");
  await orm.migrator.up();
  await em().transactional((tx) =>
    seed(
      tx as EntityManager,
      process.cwd(),
      new Date("2026-11-23"),
      () => {},
      async (secret) => secret,
    ),
  );
}

/** As a screen of the job gets it that knows nothing yet: rows of the database, laid out and judged. */
async function fromRows(): Promise<void> {
  const tx = em();
  const job = await findJob(tx, "FS-1043");
  if (!job) throw new Error("no FS-1043");
  judge((await buildOfJob(tx, job)).graph);
}

// Turn about, so that a slow moment of the machine falls on all alike; the first rounds only warm up.
const ROUNDS = 200;
const rows: number[] = [];
const ownFile: number[] = [];
const shortFile: number[] = [];
const whole: number[] = [];
for (let round = 0; round < 2 * ROUNDS; round++) {
  if (round === ROUNDS) for (const list of [rows, ownFile, shortFile, whole, ...changes.map((c) => c.times)]) list.length = 0;
  if (orm && round % 2 === 0) {
    const t = performance.now();
    await fromRows();
    rows.push(performance.now() - t);
  }
  if (round % 2 === 0) timed(ownFile, fromOwnFile);
  timed(shortFile, fromShortFile);
  timed(whole, fromBuild);
  for (const c of changes) timed(c.times, c.again);
}
console.log(
  `FS-1043 (${bare.parts.length} parts) judged: median of ${ROUNDS} rounds turn about (${ROUNDS / 2} from the database and from its own file), warm, one run`,
);
console.log(
  `  from nothing: from the database ${middle(rows).toFixed(2)} ms, from its own file ${middle(ownFile).toFixed(2)} ms; with the shelf's entries in memory ${middle(shortFile).toFixed(2)} ms, with the build in memory too ${middle(whole).toFixed(2)} ms; again, after one part changed, over all parts in turn:`,
);
const kinds = [...new Set(changes.map((c) => c.kind))];
for (const kind of [undefined, ...kinds]) {
  const medians = changes.filter((c) => kind === undefined || c.kind === kind).map((c) => middle(c.times));
  const ms = middle(medians);
  const times = (of: number[]) => (middle(of) / ms).toFixed(1);
  console.log(
    `  ${(kind ?? "all").padEnd(8)} ${String(medians.length).padStart(2)} parts  ${ms.toFixed(2)} ms: ${times(rows)} times quicker than from the database, ${times(ownFile)} than from its own file, ${times(shortFile)} than with the shelf in memory, ${times(whole)} than with the build in memory`,
  );
}

if (orm) {
  const body = JSON.stringify(shelf[0]);
  console.log("Search of the shelf, median of seven questions, at the server with the database");
  let from = 0;
  for (const size of [5_000, 50_000]) {
    await em().execute(
      `insert into shelf_type (id, kind, maker, name, revision, body, stock) select 'gen-' || n, (array['fan','board','case','drive'])[1 + n % 4], 'Maker ' || (n % 37), 'Part ' || md5(n::text), 1, ?::jsonb, 0 from generate_series(${from + 1}, ${size}) n`,
      [body],
    );
    await em().execute("analyze shelf_type");
    from = size;
    const times: number[] = [];
    for (const q of ["part a1", "maker 7", "heron", "part 3f2", "no such thing", "", "gen-49"]) {
      await searchShelf(em(), q);
      const t = performance.now();
      await searchShelf(em(), q);
      times.push(performance.now() - t);
    }
    times.sort((a, b) => a - b);
    console.log(`  ${String(size).padStart(6)} part types  median ${times[3]?.toFixed(1)} ms, slowest ${times[6]?.toFixed(1)} ms`);
  }
  await orm.close();
}
