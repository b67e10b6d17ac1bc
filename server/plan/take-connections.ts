import { z } from "zod";
import { readConnections } from "../../core/sheet";
import type { EntityManager } from "../../db";
import { buildOfJob, findJob } from "../build/build-of-job";
import { no, yes } from "../kernel/result";
import { fileText, JobNumber } from "../kernel/text";
import { carryOut, query } from "../unit/action";
import { fix } from "./fix";

export const TakeConnections = z.object({ number: JobNumber, text: fileText(4_000_000) });

/** A connection list read back: each row that can be is fixed, the others stay as they are, each with a sentence. */
export const takeConnections = query({
  name: "wiring.take-list",
  permission: "plan",
  input: TakeConnections,
  run: async (em, t, actor) => {
    const job = await findJob(em, t.number);
    if (!job) return no(`There is no job ${t.number}.`);
    const b = await buildOfJob(em, job);
    const read = readConnections(t.text, b.graph);
    if (!read.ok) return no(read.sentence);
    const out = { fixed: 0, same: 0, left: [...read.faults] };
    for (const r of read.rows) {
      const now = b.graph.ofLead.get(r.lead);
      const held = now && now.state !== "planned" && now.port === r.port && (now.place ?? []).join() === (r.place ?? []).join();
      if (held) {
        out.same += 1;
        continue;
      }
      const wish = { number: t.number, lead: r.lead, port: r.port, ...(r.place ? { place: r.place } : {}), fixed: true };
      const said = await carryOut(em.fork() as EntityManager, actor, fix, wish);
      if (said.ok) out.fixed += 1;
      else out.left.push(`Line ${r.line}: ${said.sentence.replace(" Nothing was changed.", "")}`);
    }
    return yes(out);
  },
});
