import { isDone } from "../../../core/assembly";
import { SHEET } from "../../../core/machine";
import { photoPlaceOf } from "../../handover/leaving";
import type { JobView } from "../job-view";
import { own } from "./own";

/** What Handover shows of a job. */
export const handoverSlice = ({ build, leads, free, power, seen, plan, head, setAside, tied, photos, steps, after }: JobView) => {
  const lineOf = (id: string) => power.lines.find((l) => l.id === id)?.what ?? after.items.find((i) => i.id === id)?.what ?? "the first-boot sheet";
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
    unseen: power.lines.filter((l) => !seen[l.id] || seen[l.id]?.simulated).length,
    inBag: plan?.inBag ?? [],
    head,
    setAside,
    tied,
    photos: photos.map((p) => ({
      ...p,
      of:
        photoPlaceOf(p.step)?.what ??
        (p.step?.startsWith(SHEET) ? lineOf(p.step.slice(SHEET.length)) : (steps.find((s) => s.id === p.step)?.title ?? nameOf(p.part))),
    })),
  };
};
export type HandoverSlice = ReturnType<typeof handoverSlice>;
