import { type Build, isDone } from "../../core/assembly";
import type { JobView } from "./job-view";

/** A build as a drawing needs it: its parts and their types, those that are named besides, and nothing else of the shelf. */
function own(build: Build, named: readonly string[] = []): Build {
  const used = new Set([...build.parts.map((p) => p.type), ...named]);
  return { ...build, accessories: [], partTypes: build.partTypes.filter((t) => used.has(t.id)) };
}

/** Of what would not work a bench shows the first. */
const MOST_LINES = 12;

// What each screen gets of a job's view, and no more.

export const wiringSlice = ({ build, leads, findings, plan, head, free }: JobView) => {
  // What would let in what stays free is called by its name.
  const named = plan?.ways?.needs.flatMap((n) => (n.kind === "accessory" ? [n.type] : [])) ?? [];
  return { build: own(build, named), leads, findings, plan, head, free };
};
export const partsSlice = ({ build, head, plan, leads, findings, photos, steps }: JobView) => {
  const partsOf = new Map(steps.map((s) => [s.id, s.parts]));
  return {
    build: own(build),
    head,
    plan,
    leads,
    findings,
    photos: photos.map((p) => ({ id: p.id, by: p.by, at: p.at, parts: p.part ? [p.part] : (partsOf.get(p.step ?? "") ?? []) })),
  };
};
export type PartsSlice = ReturnType<typeof partsSlice>;

export const orderSlice = ({ build, steps, order, skipped, notHere, photos, head, plan }: JobView) => ({
  build: own(build),
  steps,
  order,
  skipped,
  notHere,
  photos,
  head,
  plan: plan !== null,
});
export type OrderSlice = ReturnType<typeof orderSlice>;

export const benchSlice = ({ build, steps, order, skipped, notHere, photos, head, leads, power, findings, starts, plan }: JobView) => ({
  build: own(build),
  // Hands are told what comes first, not why.
  steps: steps.map((s) => ({ ...s, after: s.after.map(({ step, kind }) => ({ step, kind })) })),
  order,
  skipped,
  notHere,
  photos,
  head,
  leads: leads.map(({ address, tag, name, loom, port, portName, place, state }) => ({ address, tag, name, loom, port, portName, place, state })),
  power: {
    verdict: power.verdict,
    lines: power.lines.flatMap(({ id, works, what, expected, because }) => (works ? [] : [{ id, what, expected, because }])).slice(0, MOST_LINES),
  },
  starts,
  /** No plug is on any card yet. */
  unplanned: plan === null && build.connections.length === 0,
  // What stops a step; the rest is a desk's.
  findings: findings.filter((f) => f.severity === "stop"),
});
export type BenchSlice = ReturnType<typeof benchSlice>;

export const handoverSlice = ({ build, leads, free, power, seen, plan, head, setAside, tied, open, photos, steps }: JobView) => {
  const types = new Map(build.partTypes.map((t) => [t.id, t]));
  const built = { ...own(build), connections: build.connections.filter(isDone) };
  const nameOf = (id: string | null) => {
    const part = build.parts.find((p) => p.id === id);
    return part ? (part.label ?? types.get(part.type)?.name ?? part.id) : "";
  };
  return {
    build: built,
    parts: build.parts.map((p) => {
      const { maker, name } = types.get(p.type) ?? { maker: "", name: p.type };
      return { id: p.id, maker, name, label: p.label ?? null, serial: p.serial ?? null };
    }),
    leads: leads.flatMap(({ address, tag, name, loom, portName, place, state }) =>
      portName ? [{ address, tag, name, loom, portName, place, state }] : [],
    ),
    free,
    lines: power.lines.length,
    unseen: power.lines.filter((l) => !seen[l.id]).length,
    inBag: plan?.inBag ?? [],
    head,
    setAside,
    tied,
    open,
    photos: photos.map((p) => ({ ...p, of: steps.find((s) => s.id === p.step)?.title ?? nameOf(p.part) })),
  };
};
export type HandoverSlice = ReturnType<typeof handoverSlice>;

export const bootSlice = ({ power, seen, head, build, progress }: JobView) => ({ power, seen, head, settings: build.settings, progress });
export type BootSlice = ReturnType<typeof bootSlice>;

export const faultsSlice = ({ faults, diagnosis, head, seen, build }: JobView) => ({ faults, diagnosis, head, seen, build: own(build) });
