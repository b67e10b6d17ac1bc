import { absurdities, type Proof, type Verdict, verdictOf } from "../../core/proof";
import { type SetupDone, type SetupItem, type SetupState, stateOf } from "../../core/setup";
import { ByItself, type EntityManager, Loan, ProofRow, Secret, SetupRow, SoakLog } from "../../db";
import type { JobBuild } from "./build-of-job";
import { type FirstStartEnds, firstStartEnds } from "./first-start";
import { promisesOf, setupOfJob } from "./setup-of-job";

/** How each thing of the set-up stands, what was proved of what was promised, and whether it soaked. */
export interface AfterStart {
  items: (SetupItem & { stands: SetupState; done: (SetupDone & { by: string; at: string }) | null })[];
  promises: {
    about: string;
    words: string;
    value?: number | undefined;
    verdict: Verdict;
    because: string;
    proof: (Proof & { by: string; at: string }) | null;
  }[];
  /** What cannot be of what was measured. */
  absurd: string[];
  /** A soak that held is on record. */
  soaked: boolean;
  /** Things that are in the machine and are to be out again. */
  loans: { id: string; what: string; owner: string; serial: string; by: string; at: string }[];
  /** Sealed with the job: what it is, never what it says. */
  secrets: { id: string; what: string; by: string; shownTo: string | null }[];
  /** What runs by itself. */
  alone: { id: string; what: string; by: string; at: string; minutes: number }[];
  /** Where the shop ends a first start. */
  endsAt: FirstStartEnds;
  /** A stand-in of it soaked. */
  simulated: boolean;
  /** The highest that the CPU held in the last soak, °C. */
  hottestC?: number;
}

export async function afterStart(em: EntityManager, b: JobBuild): Promise<AfterStart> {
  const [items, rows, proofs, soaks] = [
    await setupOfJob(em, b),
    await em.find(SetupRow, { job: b.job.id }, { limit: 400, populate: ["by"] }),
    await em.find(ProofRow, { job: b.job.id }, { limit: 200, populate: ["by"] }),
    await em.find(SoakLog, { job: b.job.id }, { limit: 20, fields: ["soak", "simulated"], orderBy: { at: "desc" } }),
  ];
  const of = { job: b.job.id };
  const loans = await em.find(Loan, { ...of, backAt: null }, { limit: 40, orderBy: { at: "asc" }, populate: ["by"] });
  const secrets = await em.find(Secret, of, { limit: 40, orderBy: { at: "asc" }, populate: ["by", "shownTo"] });
  const alone = await em.find(ByItself, { ...of, seenAt: null }, { limit: 40, orderBy: { at: "asc" }, populate: ["by"] });
  const done = new Map(rows.map((r) => [r.item, r]));
  const promises = promisesOf(b.job.brief).map((p) => {
    const row = proofs.find((r) => r.about === p.about && r.words === p.words);
    const proof = row ? (row.body as Proof) : undefined;
    return { ...p, ...verdictOf(p, proof), proof: proof && row ? { ...proof, by: row.by.name, at: row.at.toISOString() } : null };
  });
  const hottest = (soaks[0]?.soak as { maxima?: { part: string; quantity: string; value: number }[] } | undefined)?.maxima?.find(
    (m) => m.part === "cpu" && m.quantity === "temperature",
  )?.value;
  return {
    ...(hottest === undefined ? {} : { hottestC: hottest }),
    items: items.map((i) => {
      const r = done.get(i.id);
      const d = r ? { target: r.target, before: r.before, after: r.after, state: r.state as SetupDone["state"], why: r.why } : undefined;
      return { ...i, stands: stateOf(i, d), done: d && r ? { ...d, by: r.by.name, at: r.at.toISOString() } : null };
    }),
    loans: loans.map((l) => ({ id: l.id, what: l.what, owner: l.owner, serial: l.serial, by: l.by.name, at: l.at.toISOString() })),
    secrets: secrets.map((x) => ({ id: x.id, what: x.what, by: x.by.name, shownTo: x.shownTo?.name ?? null })),
    alone: alone.map((x) => ({ id: x.id, what: x.what, by: x.by.name, at: x.at.toISOString(), minutes: x.minutes })),
    endsAt: await firstStartEnds(em),
    promises,
    absurd: absurdities(promises.flatMap((p) => (p.proof ? [{ words: p.words, proof: p.proof }] : []))),
    // A stand-in that held says nothing of the machine that goes out.
    soaked: soaks.some((s) => !s.simulated && (s.soak as { verdict?: string }).verdict === "held"),
    simulated: soaks.some((s) => s.simulated),
  };
}
