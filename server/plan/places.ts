import { z } from "zod";
import { Address, isDone } from "../../core/assembly";
import { closesRing } from "../../core/brings";
import { mate, usable } from "../../core/catalogue";
import type { PlaceCost } from "../../core/plan";
import { type EntityManager, Plan } from "../../db";
import { buildOfJob, findJob } from "../build/build-of-job";
import { no, type Result, yes } from "../kernel/result";
import { JobNumber, Place } from "../kernel/text";
import { query } from "../unit/action";
import { placesInThread } from "./plan-thread";

export const Places = z.object({
  number: JobNumber,
  lead: Address,
  places: z
    .array(z.object({ port: Address, place: Place.optional() }))
    .min(1)
    .max(24, "at most 24 places at once"),
});

export type PlaceRow = PlaceCost;

/** What each place of a lead would cost against the best plan, planned with the lead fixed there. Nothing is stored. */
export async function placeCosts(
  em: EntityManager,
  p: z.infer<typeof Places>,
  work: typeof placesInThread = placesInThread,
): Promise<Result<PlaceRow[]>> {
  const job = await findJob(em, p.number);
  if (!job) return no(`There is no job ${p.number}.`);
  const b = await buildOfJob(em, job);
  const lead = b.graph.leads.get(p.lead);
  if (!lead) return no(`${p.number} has no lead ${p.lead} any more. Look at the wiring again.`);
  const now = b.graph.ofLead.get(p.lead);
  if (now && isDone(now)) return no(`${lead.tag} is plugged. Take it out first; then the costs of other places can be told.`);
  const plan = await em.findOne(Plan, { job: job.id }, { orderBy: { revision: "desc" } });
  if (!plan || plan.partsRevision !== job.partsRevision) return no("Costs are told against a plan of today's parts. Plan the wiring first.");
  const places = p.places.filter((x) => {
    const port = b.graph.ports.get(x.port);
    return port && usable(mate(lead.lead.family, port.port.family, lead.lead.key, port.port.key)) && !closesRing(b.graph, lead, port);
  });
  if (places.length === 0) return no(`${lead.tag} goes into none of these ports.`);
  try {
    return yes(await work(b.build, p.lead, places));
  } catch (e) {
    return no(`The costs could not be worked out: ${e instanceof Error ? e.message : String(e)}. Nothing was changed. Try again.`);
  }
}

export const placeCostsHere = query({ name: "wiring.place-costs", input: Places, run: (em, p) => placeCosts(em, p) });
