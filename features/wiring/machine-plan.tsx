"use client";
import { memo, useMemo, useRef } from "react";
import { type Box, type Drawn, drawSheet, type PortState, type Scene, type SceneBox, type ScenePort } from "../../core/scene";
import type { LeadRow } from "../../server/views/lead-rows";
import type { LoomName } from "../../ui/loom";
import { SceneItems } from "../drawing/scene-items";

export type SheetName = "front" | "behind";

export interface MachinePlanProps {
  scene: Scene;
  leads: LeadRow[];
  sheet: SheetName;
  loom: LoomName | null;
  chosen: string | null;
  chosenPort: string | null;
  open: ReadonlySet<string>;
  scale: number;
  /** Everything is named, not only what matters now. */
  namesAll: boolean;
  /** Where something lies over the drawing, px of it: no words there. */
  covered?: Box | undefined;
  onPort: (address: string) => void;
  onPart: (ids: readonly string[]) => void;
  onLead: (address: string) => void;
  /** A finger landed within 60 px of several ports. */
  onAsk: (ports: string[]) => void;
}

const FINGER_PX = 60;
const EDGE_PX = 8;

/** What a sheet looks like with a loom on, or a lead or port chosen. */
export function drawnSheet(
  p: Pick<MachinePlanProps, "scene" | "leads" | "sheet" | "loom" | "chosen" | "chosenPort" | "open" | "scale" | "namesAll" | "covered"> & {
    small?: boolean;
  },
): Drawn {
  const byLead = new Map(p.leads.map((l) => [l.address, l]));
  const atPort = new Map<string, LeadRow[]>();
  for (const l of p.leads) if (l.port) atPort.set(l.port, [...(atPort.get(l.port) ?? []), l]);
  const chosenLead = p.chosen ? byLead.get(p.chosen) : undefined;
  // What shares a splitter or a hub with the chosen lead goes on to the same header: its way is shown too.
  const along = new Set(chosenLead ? upTheLine(p.scene, byLead, chosenLead) : []);
  const bundle = new Set(p.chosen && p.loom ? p.leads.filter((l) => l.loom === p.loom).map((l) => l.address) : []);
  const shown = (lead: string) => {
    if (lead === p.chosen || along.has(lead)) return "whole" as const;
    if (p.chosen) return bundle.has(lead) ? ("dim" as const) : ("none" as const);
    if (p.loom) return byLead.get(lead)?.loom === p.loom ? ("whole" as const) : ("none" as const);
    return p.small ? ("none" as const) : ("stub" as const);
  };
  const stateOf = (here: readonly LeadRow[]): PortState =>
    here.some((l) => l.state === "wrong" || l.severity === "stop")
      ? "wrong"
      : here.length === 0
        ? "free"
        : here.every((l) => l.state === "plugged" || l.state === "checked")
          ? "done"
          : "planned";
  const inLoom = new Set(
    p.leads.filter((l) => l.loom === p.loom && l.port).flatMap((l) => [l.fromPart, (l.port ?? "").slice(0, (l.port ?? "").indexOf(":"))]),
  );
  const chosenEnds = new Set([chosenLead?.port, p.chosenPort].filter(Boolean));
  const nameOfPort = (q: ScenePort): number | undefined => {
    if (p.small) return undefined;
    const here = atPort.get(q.address) ?? [];
    if (chosenEnds.has(q.address)) return 0;
    if (p.open.has(q.address)) return 1;
    if (here.some((l) => l.severity)) return 1;
    if (q.landmark) return undefined;
    if (p.loom && here.some((l) => l.loom === p.loom)) return q.onBoard || p.namesAll ? 2 : undefined;
    if (p.namesAll) return q.onBoard ? (here.length === 0 ? 4 : 5) : undefined;
    return undefined;
  };
  const nameOfBox = (b: SceneBox): number | undefined => {
    if (p.small || b.kind === "board" || b.kind === "heatsink" || b.kind === "pump" || b.kind === "cooler") return undefined;
    if (chosenLead && b.part === chosenLead.fromPart) return 0.5;
    if (p.loom && b.part && inLoom.has(b.part)) return b.kind === "hung" ? 2.5 : 2;
    return b.kind === "hung" ? (p.loom && !inLoom.has(b.part ?? "") ? undefined : 4) : b.kind === "fan" ? (b.faceOn ? 6 : 3) : 5;
  };
  return drawSheet(p.scene, p.sheet, {
    scale: p.scale,
    line: 14,
    letter: 0.52,
    pitch: p.small ? 2 : 5,
    least: p.small ? 0 : 10,
    shown,
    isDone: (l) => ["plugged", "checked"].includes(byLead.get(l)?.state ?? ""),
    port: (address) => ({ state: stateOf(atPort.get(address) ?? []), chosen: chosenEnds.has(address), open: p.open.has(address) }),
    nameOfPort,
    nameOfBox,
    ...(p.covered ? { clear: [p.covered] } : {}),
  });
}

/** Leads of splitters and the like between a lead's plug and the header. */
function upTheLine(scene: Scene, byLead: ReadonlyMap<string, LeadRow>, lead: LeadRow): string[] {
  const out: string[] = [];
  for (const part of scene.routes.byLead.get(lead.address)?.through ?? [])
    for (const l of byLead.values()) if (l.fromPart === part && l.port) out.push(l.address);
  return out;
}

/** One side of the tray with everything on it: ports where they are, leads as they run. */
export const MachinePlan = memo(function MachinePlan(props: MachinePlanProps) {
  const { scene, leads, sheet, loom, chosen, chosenPort, open, scale, namesAll, covered, onPort, onPart, onLead, onAsk } = props;
  const finger = useRef(false);
  const drawn = useMemo(
    () => drawnSheet({ scene, leads, sheet, loom, chosen, chosenPort, open, scale, namesAll, covered }),
    [scene, leads, sheet, loom, chosen, chosenPort, open, scale, namesAll, covered],
  );
  const titles = useMemo(() => {
    const m = new Map<string, string[]>();
    for (const l of leads) if (l.port) m.set(l.port, [...(m.get(l.port) ?? []), `${l.tag} ${l.name}, ${l.state}`]);
    return m;
  }, [leads]);
  const labelOf = useMemo(() => new Map(scene.ports.map((p) => [p.address, p.label])), [scene]);
  const lit = useMemo(() => {
    const l = leads.find((x) => x.address === chosen);
    return new Set(l ? [l.fromPart, l.port?.slice(0, l.port.indexOf(":")) ?? ""] : chosenPort ? [chosenPort.slice(0, chosenPort.indexOf(":"))] : []);
  }, [leads, chosen, chosenPort]);
  const f = drawn.frame;
  return (
    <svg
      width={f.w + 2 * EDGE_PX}
      height={f.h + 2 * EDGE_PX}
      viewBox={`${f.x - EDGE_PX} ${f.y - EDGE_PX} ${f.w + 2 * EDGE_PX} ${f.h + 2 * EDGE_PX}`}
      role="group"
      aria-label={sheet === "front" ? "Front of the tray, rear sockets to the left" : "Behind the tray, seen from behind, rear sockets to the right"}
      className="block"
      onPointerDown={(e) => {
        finger.current = e.pointerType === "touch";
      }}
      onClickCapture={(e) => {
        if (!finger.current || (e.target as Element).closest("[data-part]")) return;
        const box = e.currentTarget.getBoundingClientRect();
        const [x, y] = [e.clientX - box.left - EDGE_PX, e.clientY - box.top - EDGE_PX];
        const ports = drawn.items.filter((i) => i.kind === "port");
        const far = (b: (typeof ports)[number]["box"]) => Math.hypot(Math.max(0, b.x - x, x - b.x - b.w), Math.max(0, b.y - y, y - b.y - b.h));
        const near = ports
          .filter((p) => far(p.box) <= (p.port.landmark ? 0 : FINGER_PX))
          .sort((a, z) => far(a.box) - far(z.box) || a.box.w * a.box.h - z.box.w * z.box.h);
        if (near.length < 2) return;
        e.stopPropagation();
        onAsk(near.slice(0, 8).map((p) => p.port.address));
      }}
    >
      <SceneItems
        id={sheet}
        drawn={drawn}
        on={lit}
        titleOfPort={(a) => `${labelOf.get(a) ?? a}: ${titles.get(a)?.join("; ") ?? "free"}`}
        onPort={onPort}
        onPart={(id) => onPart([id])}
        onLead={onLead}
      />
    </svg>
  );
});

const INSET_PX = 150;
/** It takes no more of the drawing's shorter side than this share. */
const INSET_SHARE = 0.3;
const insetScale = (scene: Scene, large: number): number =>
  Math.min(INSET_PX, INSET_SHARE * large * Math.min(scene.view.widthMm, scene.view.heightMm)) / Math.max(scene.view.widthMm, scene.view.heightMm);

/** Where a small picture of so much room covers least of the drawing: from the drawing's top left corner, px. */
function leastCovered(drawn: Drawn, w: number, h: number): { x: number; y: number } {
  const f = drawn.frame;
  let best = { x: Math.max(0, f.w - w), y: Math.max(0, f.h - h) };
  let least = Number.POSITIVE_INFINITY;
  const weight = (i: Drawn["items"][number]): [Box, number] | undefined => {
    if (i.kind === "label") return [i.label.box, 4];
    // What was asked for is never covered.
    if (i.kind === "port") return [i.box, i.chosen || i.open ? 5000 : 3];
    if (i.kind !== "rect" || ["case", "free", "tray"].includes(i.ink)) return undefined;
    return [i.box, i.ink === "board" ? 0.3 : i.ink === "ghost" ? 0.1 : 1];
  };
  const things = drawn.items.flatMap((i) => {
    const one = weight(i);
    return one ? [one] : i.kind === "lead" ? i.points.map(([x, y]): [Box, number] => [{ x: x - 8, y: y - 8, w: 16, h: 16 }, 3]) : [];
  });
  for (let y = 0; y <= f.h - h; y += 12)
    for (let x = 0; x <= f.w - w; x += 12) {
      let cost = 0;
      for (const [b, k] of things) {
        const [lw, lh] = [Math.min(x + w, b.x + b.w) - Math.max(x, b.x), Math.min(y + h, b.y + b.h) - Math.max(y, b.y)];
        if (lw > 0 && lh > 0) cost += k * lw * lh;
      }
      if (cost < least) {
        least = cost;
        best = { x, y };
      }
    }
  return best;
}

type Shown = Pick<MachinePlanProps, "scene" | "leads" | "sheet" | "loom" | "chosen" | "chosenPort" | "open">;

/** Where the small picture of the other side stands in the large one: where least of it is. Words are placed round it afterwards. */
export function insetIn(large: Shown & { scale: number }): Box {
  const { widthMm, heightMm } = large.scene.view;
  const s = insetScale(large.scene, large.scale);
  const [w, h] = [widthMm * s + 16, heightMm * s + 40];
  return { ...leastCovered(drawnSheet({ ...large, namesAll: false, small: true }), w, h), w, h };
}

/** The other side of the tray, small: what goes on there. A press turns the drawing. */
export function OtherSheet({ at, onTurn, large, ...shown }: Shown & { at: Box; large: number; onTurn: () => void }) {
  const { scene, leads, sheet, loom, chosen, chosenPort, open } = shown;
  const scale = insetScale(scene, large);
  const drawn = useMemo(
    () => drawnSheet({ scene, leads, sheet, loom, chosen, chosenPort, open, scale, namesAll: false, small: true }),
    [scene, leads, sheet, loom, chosen, chosenPort, open, scale],
  );
  const f = drawn.frame;
  return (
    <button
      type="button"
      className="absolute z-10 flex flex-col border-2 border-ink bg-raised p-1 text-left"
      style={{ left: at.x + EDGE_PX, top: at.y + EDGE_PX }}
      onClick={onTurn}
    >
      <span className="px-1 text-second">{sheet === "behind" ? "Behind the tray" : "Front of the tray"}</span>
      <svg width={f.w + 4} height={f.h + 4} viewBox={`${f.x - 2} ${f.y - 2} ${f.w + 4} ${f.h + 4}`} aria-hidden>
        <SceneItems id={`small-${sheet}`} drawn={drawn} />
      </svg>
    </button>
  );
}

/** Does a way that is shown go on the other side? */
export const goesOn = (scene: Scene, leads: readonly LeadRow[], sheet: SheetName, loom: LoomName | null, chosen: string | null): boolean => {
  const some = chosen ? [chosen] : loom ? leads.filter((l) => l.loom === loom).map((l) => l.address) : [];
  return some.some((a) => scene.routes.byLead.get(a)?.way?.stretches.some((s) => s.sheet === sheet));
};
