import { z } from "zod";
import type { Build } from "../core/assembly";
import type { PartType } from "../core/catalogue";
import { partIds, proposeMounts } from "../core/intake";
import { type EntityManager, JobPart, type JobRow, layPart, ShelfType, type TechnicianRow } from "../db";
import { entryOf } from "./build-of-job";
import { log } from "./log";
import { done, no, type Result } from "./result";
import { dropLost, withJob } from "./work";

const Number_ = z.string().min(1).max(40);
const PartKey = z.string().min(1).max(80);
const EntryKey = z.string().max(80).optional();
/** More parts than this are no machine. */
export const MOST_PARTS = 200;

export const AddPart = z.object({
  number: Number_,
  type: z.string().min(1).max(80),
  count: z.number().int().min(1).max(20).default(1),
  entryKey: EntryKey,
});

/** Parts from the shelf join a job; fans, drives, hubs and lights get a free mount. */
export async function addPart(em: EntityManager, by: TechnicianRow, a: z.infer<typeof AddPart>): Promise<Result> {
  return withJob(em, a, async (tx, job, b) => {
    const type = await tx.findOne(ShelfType, { id: a.type });
    if (!type) return no(`The shelf has no part type ${a.type}. Nothing was changed.`);
    if (b.build.parts.length + a.count > MOST_PARTS) return no(`A job holds at most ${MOST_PARTS} parts. Nothing was changed.`);
    joinParts(
      tx,
      job,
      b.build,
      Array.from({ length: a.count }, () => ({ type: entryOf(type.body) })),
    );
    job.partsRevision += 1;
    log(tx, job, by, "part", `${a.count === 1 ? "" : `${a.count} × `}${type.name} added.`, a.entryKey ? { entryKey: a.entryKey } : {});
    return done();
  });
}

/** Rows for parts that join, with ids of their own and free mounts. */
export function joinParts(
  tx: EntityManager,
  job: JobRow,
  build: Build,
  list: readonly { type: PartType; serial?: string | undefined; reused?: boolean | undefined }[],
): void {
  const known = new Map(build.partTypes.map((t) => [t.id, t]));
  const ids = partIds(
    list.map((p) => p.type.kind),
    new Set(build.parts.map((p) => p.id)),
  );
  const shell = [...build.parts.map((p) => known.get(p.type)), ...list.map((p) => p.type)].find((t) => t?.kind === "case");
  const size = (t: PartType | undefined) => (t?.body.widthMm === undefined ? {} : { sizeMm: t.body.widthMm });
  const mounts = proposeMounts(shell, [
    ...build.parts.map((p) => ({ id: p.id, kind: known.get(p.type)?.kind ?? "cable", ...size(known.get(p.type)), mount: p.mount ?? "-" })),
    ...list.map((p, i) => ({ id: ids[i] ?? "", kind: p.type.kind, ...size(p.type) })),
  ]);
  for (const [i, { type, serial, reused }] of list.entries()) {
    const id = ids[i] ?? "";
    layPart(
      tx,
      job,
      { id, type: type.id, mount: mounts.get(id), from: "client", serial, reused },
      type,
      build.parts.length + i,
      reused ? { arrivedAt: new Date() } : {},
    );
  }
}

export const RemovePart = z.object({ number: Number_, part: PartKey });

export async function removePart(em: EntityManager, by: TechnicianRow, r: z.infer<typeof RemovePart>): Promise<Result> {
  return withJob(em, r, async (tx, job, b) => {
    const row = await tx.findOne(JobPart, { job: job.id, key: r.part });
    if (!row) return no(`${r.number} has no part ${r.part} any more. Nothing was changed.`);
    const own = (end: string) => end.startsWith(`${r.part}:`) || end.startsWith(`${r.part}/`);
    const held = b.build.connections.find((c) => (c.state === "plugged" || c.state === "checked") && (own(c.lead) || own(c.port)));
    if (held)
      return no(
        `${row.label ?? r.part} is plugged (${b.graph.leads.get(held.lead)?.tag ?? held.lead}). Take its plugs out first. Nothing was changed.`,
      );
    if (b.build.parts.length === 1) return no("A job keeps at least one part. Nothing was changed.");
    tx.remove(row);
    job.partsRevision += 1;
    await tx.flush();
    await dropLost(tx, job);
    log(tx, job, by, "part", `${row.label ?? b.types(row.type)?.name ?? r.part} removed from the parts.`);
    return done();
  });
}

export const PlacePart = z.object({
  number: Number_,
  part: PartKey,
  mount: z.string().max(80).nullable().optional(),
  frame: z.enum(["inside", "outside"]).nullable().optional(),
  blows: z.enum(["in", "out"]).nullable().optional(),
  vertical: z.boolean().optional(),
  tubes: z.enum(["rear", "front", "top", "bottom"]).nullable().optional(),
  reused: z.boolean().optional(),
  lowNoise: z.boolean().optional(),
  boot: z.boolean().optional(),
  cage: z.string().max(40).nullable().optional(),
  standoffsSet: z.boolean().optional(),
  bracket: z.boolean().optional(),
  fanUpMm: z.number().min(0).max(80).nullable().optional(),
});

/** Where a part sits: its mount, its side of the frame, the way a fan blows, a card stood up. */
export async function placePart(em: EntityManager, by: TechnicianRow, p: z.infer<typeof PlacePart>): Promise<Result> {
  return withJob(em, p, async (tx, job, b) => {
    const row = await tx.findOne(JobPart, { job: job.id, key: p.part });
    if (!row) return no(`${p.number} has no part ${p.part} any more. Nothing was changed.`);
    const name = row.label ?? b.types(row.type)?.name ?? p.part;
    const said: string[] = [];
    if (p.mount !== undefined) {
      const shell = [...b.graph.parts.values()].find((x) => x.type.kind === "case");
      const mount = shell?.type.body.mounts.find((m) => m.id === p.mount);
      if (p.mount !== null && !mount) return no(`The case has no mount ${p.mount}. Nothing was changed.`);
      const there = b.build.parts.find((x) => x.mount === p.mount && x.id !== p.part);
      if (p.mount !== null && there) return no(`${mount?.label} already holds ${there.label ?? there.id}. Move that first. Nothing was changed.`);
      row.mount = p.mount;
      said.push(mount ? `at ${mount.label}` : "without a mount");
    }
    const placing: Record<string, unknown> = { ...(row.placing as object) };
    for (const key of ["frame", "blows", "tubes", "cage"] as const) {
      const value = p[key];
      if (value === undefined) continue;
      if (value === null) delete placing[key];
      else placing[key] = value;
      said.push(PLACED[key](value));
    }
    for (const key of ["vertical", "reused", "lowNoise", "boot", "standoffsSet", "bracket"] as const) {
      const value = p[key];
      if (value === undefined) continue;
      if (value) placing[key] = true;
      else delete placing[key];
      said.push(SAID[key][value ? 0 : 1]);
    }
    if (p.fanUpMm !== undefined) {
      if (p.fanUpMm) placing.fanUpMm = p.fanUpMm;
      else delete placing.fanUpMm;
      said.push(p.fanUpMm ? `its front fan ${p.fanUpMm} mm higher` : "its fan as it comes");
    }
    if (p.reused) row.arrivedAt ??= new Date();
    // A system starts from one drive.
    if (p.boot) {
      for (const other of await tx.find(JobPart, { job: job.id })) {
        const { boot, ...rest } = other.placing as Record<string, unknown>;
        if (boot && other.key !== p.part) other.placing = rest;
      }
    }
    row.placing = placing;
    // Whose a part is and where its tubes come out moves no plug: the plan stays good.
    if ([p.mount, p.frame, p.blows, p.vertical, p.boot].some((x) => x !== undefined)) job.partsRevision += 1;
    log(tx, job, by, "part", `${name}: ${said.join(", ")}.`);
    return done();
  });
}

const SAID = {
  vertical: ["on the vertical mount", "level on the board"],
  reused: ["the client's own, used again", "bought for this job"],
  lowNoise: ["through its low-noise lead", "without its low-noise lead"],
  boot: ["the system starts from it", "the system starts from another drive"],
  standoffsSet: ["the standoffs are set for this board", "the standoffs are to be set"],
  bracket: ["on a bracket into the larger bay", "without a bracket"],
} as const;

const PLACED = {
  frame: (v: string | null) => `${v ?? "inside"} the frame`,
  blows: (v: string | null) => `blowing ${v ?? "the usual way"}`,
  tubes: (v: string | null) => (v === null ? "tubes where they reach and are in nobody's way" : `tubes at the ${v} end`),
  cage: (v: string | null) => (v === null ? "the drive cage as it comes" : v === "out" ? "the drive cage out" : `the drive cage at ${v}`),
};

export const WishesChange = z.object({
  number: Number_,
  purpose: z.string().trim().max(300).optional(),
  budget: z.number().min(0).max(1_000_000).nullable().optional(),
  lighting: z.enum(["wanted", "indifferent", "none"]).optional(),
  noiseDb: z.number().min(10).max(80).nullable().optional(),
  upgrade: z.string().trim().max(200).optional(),
  upgradeW: z.number().min(0).max(2000).optional(),
  fanShare: z.number().min(0.2).max(1).optional(),
});

/** What the client wants, and the planned fan speed. */
export async function changeWishes(em: EntityManager, by: TechnicianRow, w: z.infer<typeof WishesChange>): Promise<Result> {
  return withJob(em, w, async (tx, job, b) => {
    const { number: _number, fanShare, ...wishes } = w;
    const next: Record<string, unknown> = { ...b.build.wishes };
    for (const [k, v] of Object.entries(wishes)) {
      if (v === undefined) continue;
      if (v === null) delete next[k];
      else next[k] = v;
    }
    job.wishes = next;
    if (fanShare !== undefined) job.settings = { ...b.build.settings, fanShare };
    const said = [
      ...Object.entries(wishes)
        .filter(([, v]) => v !== undefined)
        .map(([k, v]) => `${WISH_WORD[k] ?? k} ${v === null || v === "" ? "left open" : v}`),
      ...(fanShare === undefined ? [] : [`planned fan speed ${Math.round(fanShare * 100)} %`]),
    ];
    log(tx, job, by, "wish", `Wishes: ${said.join(", ")}.`);
    return done();
  });
}
const WISH_WORD: Record<string, string> = {
  noiseDb: "loudest in dB(A)",
  upgradeW: "upgrade in W",
  upgrade: "later upgrade",
  lighting: "lighting",
  purpose: "purpose",
  budget: "budget",
};
