import { z } from "zod";
import { Address, lead as leadOf, mateOf, port as portOf } from "../../core/assembly";
import { mate, usable } from "../../core/catalogue";
import { measureOfPlug } from "../../core/order";
import type { LinkRow } from "../../db";
import type { JobBuild } from "../build/build-of-job";
import { contradicts, done, no, type Refusal, type Result } from "../kernel/result";
import { JobNumber, Place } from "../kernel/text";
import { awayOf } from "../receipt/returns";
import { jobAction } from "../unit/action";
import type { JobUnit } from "../unit/unit";
import { lastSaid, moment } from "./last-said";
import { keepTime, skippedNoMore, TookS } from "./took";

/** What the screen showed of a lead when a person said something of it. */
const Saw = z.object({ port: Address.nullable(), state: z.enum(["free", "planned", "plugged", "checked"]) });
type Saw = z.infer<typeof Saw>;

export const Plug = z.object({
  number: JobNumber,
  lead: Address,
  port: Address,
  place: Place.optional(),
  /** `planned`: it is out again. */
  state: z.enum(["planned", "plugged", "checked"]),
  /** Left out where a person has looked at the plug and says so whatever is recorded. */
  saw: Saw.optional(),
  /** How long hands were at it, s. */
  tookS: TookS.optional(),
});
type Plug = z.infer<typeof Plug>;

const isIn = (state: string) => state === "plugged" || state === "checked";

/** What is recorded is neither what the screen showed nor what is said now: two facts, of which one is not so. */
async function contradiction(unit: JobUnit, b: JobBuild, t: Plug, saw: Saw, link: LinkRow | undefined): Promise<Refusal | undefined> {
  const there = { port: link?.port ?? null, state: link ? (link.state === "fixed" ? "planned" : link.state) : "free" };
  // Checked by somebody else is in all the same.
  if (there.port === saw.port && (there.state === saw.state || (isIn(there.state) && isIn(saw.state)))) return undefined;
  const wants = { port: t.port, in: isIn(t.state) };
  if (there.port === wants.port && (isIn(there.state) === wants.in || !isIn(saw.state))) return undefined;
  if (!wants.in && !isIn(there.state)) return undefined;
  const l = leadOf(b.graph, t.lead);
  const p = portOf(b.graph, t.port).name;
  const by = await lastSaid(unit, { lead: t.lead });
  const now = unit.when.happened;
  const inPort =
    there.port === null
      ? "free"
      : isIn(there.state)
        ? `in ${portOf(b.graph, there.port).name}`
        : `out, planned for ${portOf(b.graph, there.port).name}`;
  const yours = wants.in ? `in ${p}` : `out of ${p}`;
  return contradicts(
    `${l.tag} is ${inPort}${by ? ` (${by})` : ""} and ${yours} (${unit.actor.name}, ${moment(now)}). Look at the plug, then choose. Nothing was changed.`,
    { there: `${inPort}${by ? ` (${by})` : ""}`, yours: `${yours} (you, ${moment(now)})` },
  );
}

/** Where a lead stands now, for whoever takes the move back. */
export const stood = (c: { port: string; state: string; place?: number[] | null | undefined }) => ({
  port: c.port,
  state: c.state,
  ...(c.place ? { place: c.place } : {}),
});

const holds = (b: JobBuild, port: string, place: number[] | undefined, except: string) =>
  b.build.connections.find((c) => c.port === port && c.lead !== except && (!c.place || !place || c.place.some((x) => place.includes(x))));

/** This lead is in this port now, or out again. */
export const plug = jobAction({ name: "bench.plug", permission: "record", input: Plug, run: (unit, t) => plugIn(unit, t) });

/** One lead said to be in a port, or out of it. `unit.build()` is as it was before. */
export async function plugIn(unit: JobUnit, t: Plug): Promise<Result> {
  const b = await unit.build();
  const l = b.graph.leads.get(t.lead);
  const p = b.graph.ports.get(t.port);
  if (!l || !p)
    return no(`The parts of ${t.number} have changed: ${l ? t.port : t.lead} is no longer in it. Nothing was changed. Look at the wiring again.`);
  const away = t.state === "planned" ? undefined : await awayOf(unit, [l.part.cable?.owner ?? l.part.id, p.part.id]);
  if (away) return no(`${away} is on its way back: nothing is plugged on it until its replacement is here. Nothing was recorded.`);
  const link = await unit.links.find(t.lead);
  const two = t.saw && (await contradiction(unit, b, t, t.saw, link));
  if (two) return two;
  const said = { lead: t.lead, tag: l.tag, name: l.name, port: t.port, portName: p.name };
  const m = mate(l.lead.family, p.port.family, l.lead.key, p.port.key);
  if (m.outcome === "keyed" && t.state !== "planned") return no(`${l.tag} does not go into ${p.name}: ${m.because}. Nothing was changed.`);
  const wanted = t.place ?? (link?.port === t.port ? (link.place ?? undefined) : undefined);
  const held = holds(b, t.port, wanted, t.lead);
  // What was said before in the same breath counts.
  const other = held && (await unit.links.find(held.lead))?.port === t.port ? held : undefined;
  if (other && t.state !== "planned") {
    const o = leadOf(b.graph, other.lead);
    if (other.state !== "planned") return no(`${p.name} already holds ${o.tag} (${o.name}). Take that out first. Nothing was changed.`);
    // The plan wanted another plug there. Where that goes into the port that is left, the two change places; else it is free again.
    const left = link && !isIn(link.state) && link.port !== t.port ? b.graph.ports.get(link.port) : undefined;
    if (left && usable(mateOf(o, left))) {
      await unit.links.put(other.lead, { port: left.address, place: link?.place ?? null, state: "planned", plannedPort: null });
      unit.emit("place-exchanged", { lead: other.lead, tag: o.tag, name: o.name, portName: left.name, with: l.tag, was: stood(other) });
    } else await unit.links.remove(other.lead);
    if (!left || !usable(mateOf(o, left)))
      unit.emit("place-lost", { lead: other.lead, tag: o.tag, name: o.name, portName: p.name, was: stood(other) });
  }
  const plannedPort = link ? (link.plannedPort ?? (isIn(link.state) ? null : link.port)) : null;
  if (t.state === "planned") {
    const belongs = usable(m);
    if (!belongs && link?.port !== t.port) return no(`${l.tag} is not in ${p.name}, and does not belong there. Nothing was changed.`);
    // Taken out of where it never belonged: it is free again, not planned for there.
    if (plannedPort === null && !belongs) await unit.links.remove(t.lead);
    else {
      const port = plannedPort ?? t.port;
      const place = t.place ?? (link?.port === port ? link.place : null) ?? null;
      await unit.links.put(t.lead, { port, place, state: "planned", plannedPort: null });
    }
    unit.emit("plug", { ...said, state: "out" });
    return done();
  }
  const place = t.place ?? (link?.port === t.port ? link.place : null) ?? null;
  const moved = link && isIn(link.state) && link.port !== t.port ? stood({ ...link, place: link.place ?? undefined }) : undefined;
  // What somebody has checked meanwhile stays checked.
  const state = link?.state === "checked" && link.port === t.port && t.saw?.state !== "checked" ? "checked" : t.state;
  await unit.links.put(t.lead, { port: t.port, place, state, plannedPort });
  await skippedNoMore(unit, `plug:${t.lead}`);
  if (t.tookS !== undefined) keepTime(unit, `plug:${t.lead}`, measureOfPlug(l), t.tookS);
  const elsewhere = plannedPort !== null && plannedPort !== t.port ? portOf(b.graph, plannedPort).name : undefined;
  unit.emit("plug", { ...said, state: t.state, ...(elsewhere ? { planned: elsewhere } : {}), ...(moved ? { was: moved } : {}) });
  unit.stage.to("worked");
  return done();
}
