import { defineEntity, p } from "@mikro-orm/core";
import { id, now } from "./columns";
import { Job } from "./job";
import { Person } from "./people";

/** Steps that make no connection: a fan fitted, the board in. */
export const StepDone = defineEntity({
  name: "StepDone",
  tableName: "step_done",
  properties: { id: id(), job: () => p.manyToOne(Job).deleteRule("cascade"), step: p.string(), at: now(), by: () => p.manyToOne(Person) },
  uniques: [{ properties: ["job", "step"] }],
});

/** A step that hands left out for now, with the reason. Done, it is skipped no longer. */
export const StepSkipped = defineEntity({
  name: "StepSkipped",
  tableName: "step_skipped",
  properties: {
    id: id(),
    job: () => p.manyToOne(Job).deleteRule("cascade"),
    step: p.string(),
    reason: p.text(),
    at: now(),
    by: () => p.manyToOne(Person),
  },
  uniques: [{ properties: ["job", "step"] }],
});

/** How long hands were at a step, s. What steps of one measure take is the shop's own figure. */
export const StepTime = defineEntity({
  name: "StepTime",
  tableName: "step_time",
  indexes: [
    { name: "step_time_measure_index", properties: ["measure", "seconds"] },
    { name: "step_time_job_index", properties: ["job"] },
  ],
  properties: {
    id: id(),
    job: () => p.manyToOne(Job).deleteRule("cascade"),
    step: p.string(),
    measure: p.string(),
    seconds: p.integer(),
    at: now(),
    by: () => p.manyToOne(Person),
  },
});

/** A photo of a job; the picture itself is in the photo store under the id. Lengths in px and bytes. */
export const Photo = defineEntity({
  name: "Photo",
  tableName: "photo",
  indexes: [{ name: "photo_job_index", properties: ["job", "at"] }],
  properties: {
    id: id(),
    job: () => p.manyToOne(Job).deleteRule("cascade"),
    step: p.string().nullable(),
    part: p.string().nullable(),
    width: p.integer(),
    height: p.integer(),
    bytes: p.integer(),
    at: now(),
    by: () => p.manyToOne(Person),
  },
});
