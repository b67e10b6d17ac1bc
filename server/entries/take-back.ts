import { z } from "zod";
import { measurable } from "../../core/catalogue";
import type { JobEvent, JobEvents, Stood } from "../../core/job";
import { eventWords, isEventKind } from "../../core/job";
import { LogEntry } from "../../db";
import { plugIn } from "../bench/plug";
import { markStep } from "../bench/step";
import { no, type Result, yes } from "../kernel/result";
import { JobNumber } from "../kernel/text";
import { pulledBefore } from "../order/pull";
import { nameIt } from "../parts/change";
import { measureOne } from "../parts/measure";
import { fixOne, unfixWhole } from "../plan/fix";
import { jobAction } from "../unit/action";
import type { JobUnit } from "../unit/unit";

/** Among so many of one's own entries the last that is not taken back yet is looked for. */
const MOST_BACK = 150;

/** The opposite of an event, done as an entry of its own; undefined where there is none. */
function opposite(unit: JobUnit, e: JobEvent): Promise<Result> | undefined {
  const { number } = unit.job;
  switch (e.kind) {
    case "plug": {
      const { lead, port, state, was } = e.data;
      // What was only checked goes back to plugged: it is in all the same.
      if (state === "checked") return plugIn(unit, { number, lead, port, state: "plugged", saw: { port, state: "checked" } });
      // Moved from one port to another, the whole move is taken back.
      if (was && state !== "out")
        return plugIn(unit, {
          number,
          lead,
          port: was.port,
          ...(was.place ? { place: was.place } : {}),
          state: was.state === "checked" ? "checked" : "plugged",
        });
      return plugIn(unit, { number, lead, port, state: state === "out" ? "plugged" : "planned" });
    }
    case "step":
      return markStep(unit, { number, step: e.data.step, done: !e.data.done });
    case "place-exchanged":
      return unit.links
        .put(e.data.lead, { port: e.data.was.port, place: e.data.was.place ?? null, state: e.data.was.state, plannedPort: null })
        .then(() => yes(undefined));
    case "place-lost":
      return e.data.was && placeBack(unit, e.data.lead, e.data.was);
    case "pulled":
    case "let-go":
      return e.data.was && pulledBefore(unit, e.data.was);
    case "fixed":
      if (e.data.was !== undefined) return unfixWhole(unit, e.data);
      return fixOne(unit, { number, lead: e.data.lead, port: e.data.port, fixed: !e.data.fixed });
    case "part-measured":
      return measureBack(unit, e.data);
    case "part-named":
      return nameIt(unit, e.data.part, e.data.was);
    default:
      return undefined;
  }
}

/** A lead that lost its place to another has it again, where nothing is in it. */
async function placeBack(unit: JobUnit, lead: string, was: Stood): Promise<Result> {
  if ((await unit.links.find(lead)) === undefined) await unit.links.put(lead, { port: was.port, place: was.place ?? null, state: was.state });
  return yes(undefined);
}

/** What counted before is what the entry says, or what was measured then. */
const measureBack = async (unit: JobUnit, { part, what, was }: JobEvents["part-measured"]): Promise<Result> => {
  const { build, types } = await unit.build();
  const type = types(build.parts.find((p) => p.id === part)?.type ?? "");
  const entry = type && measurable(type).find((m) => m.what === what)?.mm;
  return measureOne(unit, part, what, was === null || was === entry ? null : was);
};

/** Who else has said something of the same lead, step or part since an entry. */
async function saidSince(unit: JobUnit, id: number, data: object): Promise<string | undefined> {
  const field = (["lead", "step", "part"] as const).find((f) => f in data);
  if (!field) return undefined;
  const [row] = await unit.tx.execute<{ name: string }[]>(
    `select p."name" from "log_entry" e join "person" p on p."id" = e."by_id"
     where e."job_id" = ? and e."id" > ? and e."by_id" <> ? and e."data"->>? = ? order by e."id" desc limit 1`,
    [unit.job.id, id, unit.actor.id, field, (data as Record<string, string>)[field]],
  );
  return row?.name;
}

/** Takes back what this person did to a job with the last press, by a new entry: what was before stays in the log. */
export const takeBack = jobAction({
  name: "bench.take-back",
  permission: "record",
  input: z.object({ number: JobNumber }),
  run: async (unit): Promise<Result<string>> => {
    const mine = await unit.tx.find(LogEntry, { job: unit.job.id, by: unit.actor.id }, { orderBy: { id: "desc" }, limit: MOST_BACK });
    const back = new Set(mine.flatMap((e) => (e.data as { takesBack?: number } | null)?.takesBack ?? []));
    const last = mine.find((e) => !back.has(e.id) && (e.data as { takesBack?: number } | null)?.takesBack === undefined);
    if (!last?.data || !isEventKind(last.kind)) return no("You have done nothing to this job that can be taken back. Nothing was changed.");
    // One press on a card says many things; they arrived at once.
    const press = mine.filter((e) => e.at.getTime() === last.at.getTime() && !back.has(e.id) && isEventKind(e.kind));
    const said: string[] = [];
    for (const { id, kind, data } of press) {
      const event = { kind, data } as JobEvent;
      const words = eventWords(event);
      const other = await saidSince(unit, id, event.data);
      if (other) return no(`${other} has said something of it since, so no key takes it back: ${words} Nothing was changed. Look first.`);
      unit.takesBack = id;
      const done = opposite(unit, event);
      if (!done) continue;
      const r = await done;
      if (!r.ok) return r;
      said.push(words);
    }
    if (said.length === 0) {
      const words = eventWords({ kind: last.kind, data: last.data } as JobEvent);
      return no(`The last thing you did here is taken back on its own screen, not by a key: ${words} Nothing was changed.`);
    }
    return yes(`Taken back: ${said.slice(0, 3).join(" ")}${said.length > 3 ? ` And ${said.length - 3} more.` : ""}`);
  },
});
