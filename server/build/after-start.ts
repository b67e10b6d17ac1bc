import { absurdities, type Proof, type Verdict, verdictOf } from "../../core/proof";
import { type SetupDone, type SetupItem, type SetupState, stateOf } from "../../core/setup";
import { type EntityManager, ProofRow, SetupRow, SoakLog } from "../../db";
import type { JobBuild } from "./build-of-job";
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
    promises,
    absurd: absurdities(promises.flatMap((p) => (p.proof ? [{ words: p.words, proof: p.proof }] : []))),
    // A stand-in that held says nothing of the machine that goes out.
    soaked: soaks.some((s) => !s.simulated && (s.soak as { verdict?: string }).verdict === "held"),
    simulated: soaks.some((s) => s.simulated),
  };
}

/** What of it a hand-over has to answer for. */
export const openAfterStart = (a: AfterStart): { setup: number; promises: number; soaked: boolean; mustBeOut: string[] } => ({
  setup: a.items.filter((i) => ["open", "later", "otherwise"].includes(i.stands) && !i.mustBeOut).length,
  promises: a.promises.filter((p) => p.verdict === "open" || p.verdict === "not kept").length,
  soaked: a.soaked,
  mustBeOut: a.items.filter((i) => i.mustBeOut && i.stands !== "as wanted" && i.stands !== "not done").map((i) => i.what),
});
