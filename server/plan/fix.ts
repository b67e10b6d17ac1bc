import { z } from "zod";
import { Address, lead as leadOf } from "../../core/assembly";
import { closesRing } from "../../core/brings";
import { family, mate } from "../../core/catalogue";
import type { JobEvents } from "../../core/job";
import { stood } from "../bench/plug";
import { done, no, type Result } from "../kernel/result";
import { JobNumber, Place } from "../kernel/text";
import { jobAction } from "../unit/action";
import type { JobUnit } from "../unit/unit";

export const Fix = z.object({ number: JobNumber, lead: Address, port: Address, place: Place.optional(), fixed: z.boolean() });

/** The technician decides where a lead goes; the planner keeps to it. Refuses what does not mate. */
export const fix = jobAction({ name: "wiring.fix", permission: "plan", input: Fix, run: (unit, f) => fixOne(unit, f) });

/** A lead is again where it stood before somebody fixed it elsewhere, and so are those that lost their places by it, where nobody is now. */
export async function unfixWhole(unit: JobUnit, e: JobEvents["fixed"]): Promise<Result> {
  const link = await unit.links.find(e.lead);
  if (link && (link.state === "plugged" || link.state === "checked"))
    return no(`${e.tag} is plugged by now: no key takes its place back. Nothing was changed.`);
  if (link?.port !== e.port) return no(`${e.tag} is not in ${e.portName} any more. Nothing was changed.`);
  if (e.was) await unit.links.put(e.lead, { port: e.was.port, place: e.was.place ?? null, state: e.was.state });
  else await unit.links.remove(e.lead);
  const { build } = await unit.build();
  for (const l of e.lost ?? []) {
    const free =
      (await unit.links.find(l.lead)) === undefined &&
      !build.connections.some((c) => c.port === l.port && c.lead !== e.lead && c.state !== "planned");
    if (free) await unit.links.put(l.lead, { port: l.port, place: l.place ?? null, state: l.state });
  }
  unit.emit("fixed", { ...e, fixed: !e.fixed, bumped: [] });
  return done();
}

/** One lead fixed in a port, or let go. `unit.build()` is as it was before. */
export async function fixOne(unit: JobUnit, f: z.infer<typeof Fix>): Promise<Result> {
  const b = await unit.build();
  const l = b.graph.leads.get(f.lead);
  const p = b.graph.ports.get(f.port);
  if (!l || !p) return no(`The parts of ${f.number} have changed. Nothing was changed. Look at the wiring again.`);
  const m = mate(l.lead.family, p.port.family, l.lead.key, p.port.key);
  if (m.outcome === "keyed" || m.outcome === "harm") return no(`${l.tag} (${l.name}) does not go into ${p.name}: ${m.because}. Nothing was changed.`);
  if (f.fixed && closesRing(b.graph, l, p))
    return no(`${l.tag} (${l.name}) in ${p.name} would close a ring that nothing feeds. Nothing was changed.`);
  const link = await unit.links.find(f.lead);
  if (link && (link.state === "plugged" || link.state === "checked"))
    return no(`${l.tag} is already plugged. Take it out first, then move it. Nothing was changed.`);
  const capacity = p.port.places ?? family(p.port.family).places;
  const there = b.build.connections.filter((c) => c.port === f.port && c.lead !== f.lead);
  const clash = there.filter((c) => (capacity === 1 ? true : !c.place || !f.place || c.place.some((x) => f.place?.includes(x))));
  const held = clash.find((c) => c.state !== "planned");
  if (held) return no(`${p.name} already holds ${leadOf(b.graph, held.lead).tag}, which is ${held.state}. Nothing was changed.`);
  const was = link ? stood(link) : null;
  for (const c of clash) await unit.links.remove(c.lead);
  const samePlace = link?.port === f.port ? link.place : null;
  await unit.links.put(f.lead, {
    port: f.port,
    place: f.place ?? samePlace ?? null,
    state: f.fixed ? "fixed" : "planned",
    ...(f.fixed || !link ? { why: `Fixed here by ${unit.actor.name}.` } : {}),
  });
  const bumped = clash.map((c) => leadOf(b.graph, c.lead).tag);
  unit.emit("fixed", {
    lead: f.lead,
    tag: l.tag,
    name: l.name,
    port: f.port,
    portName: p.name,
    fixed: f.fixed,
    bumped,
    was,
    lost: clash.map((c) => ({ lead: c.lead, ...stood(c) })),
  });
  return done();
}
