import { z } from "zod";
import { MachineToken } from "../../db";
import { machineToken } from "../kernel/machine-token";
import { done, no, type Result, yes } from "../kernel/result";
import { JobNumber, line } from "../kernel/text";
import { jobAction } from "../unit/action";
import type { JobUnit } from "../unit/unit";

const HOUR_MS = 3_600_000;
/** So many may send to one job at a time. */
const MOST_AT_ONCE = 5;

/** Somebody lets a machine send to the job, for some hours. The token is in the answer once and nowhere else. */
export async function admit(
  unit: JobUnit,
  { hours, name, simulated }: { hours: number; name: string; simulated: string | null },
): Promise<Result<{ id: string; token: string }>> {
  const { tx, job } = unit;
  const open = await tx.count(MachineToken, { job: job.id, withdrawnAt: null, until: { $gt: new Date() } });
  if (open >= MOST_AT_ONCE) return no(`${MOST_AT_ONCE} may send to ${job.number} already. Withdraw one first. Nothing was changed.`);
  const { token, hash } = machineToken();
  const until = new Date(unit.when.arrived.getTime() + hours * HOUR_MS);
  const row = tx.create(MachineToken, { job, tokenHash: hash, name, simulated, by: unit.by, at: unit.when.arrived, until, withdrawnAt: null });
  await tx.flush();
  unit.emit("machine-let-in", { name, until: until.toISOString(), ...(simulated === null ? {} : { simulated: true }) });
  return yes({ id: row.id, token });
}

export const letMachineIn = jobAction({
  name: "machine.let-in",
  permission: "record",
  input: z.object({
    number: JobNumber,
    hours: z.number().int().min(1).max(72).default(24),
    name: line(60).default(""),
  }),
  run: (unit, { hours, name }) => admit(unit, { hours, name: name || "the start drive", simulated: null }),
});

export const shutMachineOut = jobAction({
  name: "machine.shut-out",
  permission: "record",
  // Once the machine is handed over nobody may send in its name.
  onClosed: true,
  input: z.object({ number: JobNumber, id: z.uuid() }),
  run: async (unit, { id }): Promise<Result> => {
    const row = await unit.tx.findOne(MachineToken, { id, job: unit.job.id });
    if (!row) return no("There is no such token at this job. Nothing was changed.");
    if (row.withdrawnAt !== null) return done();
    row.withdrawnAt = unit.when.arrived;
    unit.emit("machine-shut-out", { name: row.name });
    return done();
  },
});
