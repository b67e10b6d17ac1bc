"use client";
import { memo, useMemo, useRef } from "react";
import { partIdOf } from "../../core/assembly";
import type { LeadRow } from "../../server/read/lead-rows";
import {
  boardFrame,
  type DockItem,
  gatherDocks,
  type PlacedPort,
  placeDocks,
  placeLabels,
  placePorts,
  routeRound,
} from "../../ui/drawing/board-layout";
import { type LoomName, LoomPath } from "../../ui/loom";
import { dockOfLead, type Scene } from "./scene";

export interface BoardPlanProps {
  scene: Scene;
  leads: LeadRow[];
  loom: LoomName | null;
  chosen: string | null;
  chosenPort: string | null;
  open: ReadonlySet<string>;
  scale: number;
  onPort: (address: string) => void;
  onDock: (ids: readonly string[]) => void;
  /** A finger landed within 60 px of several ports. */
  onAsk: (ports: string[]) => void;
}

const FINGER_PX = 60;

/** The real thing from above: rear sockets left, ports where they are, docks round them, leads laid as cords. */
export const BoardPlan = memo(function BoardPlan({ scene, leads, loom, chosen, chosenPort, open, scale, onPort, onDock, onAsk }: BoardPlanProps) {
  const finger = useRef(false);
  const chosenLead = leads.find((l) => l.address === chosen);
  const chosenNode = chosen ? scene.graph.leads.get(chosen) : undefined;
  const chosenDock = chosenNode && dockOfLead(scene.graph, chosenNode);
  const frame = useMemo(() => boardFrame(scene.widthMm, scene.heightMm, scale), [scene, scale]);
  const ports = useMemo(() => placePorts(frame, scene.ports, scene.widthMm, scene.heightMm), [frame, scene]);
  // One loom at a time shows only what has a part in it, each on its own where there is room.
  const gathered = useMemo(() => {
    const inLoom = new Set(
      leads
        .filter((l) => l.loom === loom)
        .flatMap((l) => {
          const n = scene.graph.leads.get(l.address);
          return [...(n ? [dockOfLead(scene.graph, n)] : []), ...(l.port ? [l.port, partIdOf(l.port)] : [])];
        }),
    );
    const shown = loom ? scene.docks.filter((d) => inLoom.has(d.id) || d.id === chosenDock) : scene.docks;
    const single = (id: string) => id.includes(":") || ["case", "card", "hub"].includes(scene.graph.parts.get(id)?.type.kind ?? "");
    return gatherDocks(frame, shown, single);
  }, [frame, scene, leads, loom, chosenDock]);
  const docks = useMemo(() => placeDocks(frame, gathered), [frame, gathered]);
  const portAt = useMemo(() => new Map(ports.map((p) => [p.address, p])), [ports]);
  const holdsOf = useMemo(() => new Map(gathered.map((g) => [g.id, g.holds ?? [g.id]])), [gathered]);
  const dockAt = useMemo(() => new Map(docks.flatMap((d) => (holdsOf.get(d.id) ?? [d.id]).map((id) => [id, d] as const))), [docks, holdsOf]);
  const atPort = useMemo(() => {
    const m = new Map<string, LeadRow[]>();
    for (const l of leads) if (l.port) m.set(l.port, [...(m.get(l.port) ?? []), l]);
    return m;
  }, [leads]);
  const wanted = useMemo(() => {
    const rank = (p: PlacedPort) => {
      const here = atPort.get(p.address) ?? [];
      if (p.address === chosenPort || here.some((l) => l.address === chosen)) return 0;
      if (here.some((l) => l.severity)) return 1;
      if (loom && here.some((l) => l.loom === loom)) return 2;
      return here.length === 0 ? 3 : 4;
    };
    // Whole view: the chosen loom, findings and the chosen port are named; at rest, all that finds room.
    const most = chosen || chosenPort || loom ? 2 : 4;
    return ports
      .filter((p) => rank(p) <= most)
      .sort((a, b) => rank(a) - rank(b))
      .map((p) => p.address);
  }, [ports, atPort, chosen, chosenPort, loom]);
  const labels = useMemo(() => placeLabels(frame, ports, wanted), [frame, ports, wanted]);
  const routes = useMemo(() => {
    const some = leads.filter((l) => l.port && l.loom !== "seat" && (chosen ? l.address === chosen : loom ? l.loom === loom : false));
    return some.flatMap((l) => {
      const node = scene.graph.leads.get(l.address);
      const from = node && dockAt.get(dockOfLead(scene.graph, node));
      if (!from) return [];
      const start = {
        x: from.side === "left" ? from.x + from.w : from.side === "right" ? from.x : from.x + from.w / 2,
        y: from.side === "top" ? from.y + from.h : from.side === "bottom" ? from.y : from.y + from.h / 2,
        side: from.side,
      };
      const p = portAt.get(l.port ?? "");
      const dock = p ? undefined : (dockAt.get(l.port ?? "") ?? dockAt.get(partIdOf(l.port ?? "")));
      const end = p
        ? { x: p.cx, y: p.cy, edge: p.edge }
        : dock
          ? {
              x: dock.side === "left" ? dock.x + dock.w : dock.side === "right" ? dock.x : dock.x + dock.w / 2,
              y: dock.side === "top" ? dock.y + dock.h : dock.side === "bottom" ? dock.y : dock.y + dock.h / 2,
              edge: dock.side,
            }
          : undefined;
      return end && dock?.id !== from.id ? [{ lead: l, d: routeRound(frame, start, end) }] : [];
    });
  }, [leads, loom, chosen, scene, frame, portAt, dockAt]);
  const portsOfChosen = new Set(chosenLead?.port ? [chosenLead.port] : []);
  const docksOn = new Set(
    routes.flatMap((r) => {
      const n = scene.graph.leads.get(r.lead.address);
      return n ? [dockOfLead(scene.graph, n)] : [];
    }),
  );
  const b = frame.board;
  return (
    <svg
      width={frame.width}
      height={frame.height}
      viewBox={`0 0 ${frame.width} ${frame.height}`}
      role="group"
      aria-label="Board plan, rear sockets to the left"
      className="block"
      onPointerDown={(e) => {
        finger.current = e.pointerType === "touch";
      }}
      onClickCapture={(e) => {
        if (!finger.current || (e.target as Element).closest("[data-dock]")) return;
        const box = e.currentTarget.getBoundingClientRect();
        const far = (p: PlacedPort) =>
          Math.hypot(Math.max(0, Math.abs(e.clientX - box.left - p.cx) - p.w / 2), Math.max(0, Math.abs(e.clientY - box.top - p.cy) - p.h / 2));
        const near = ports.filter((p) => far(p) <= (p.landmark ? 0 : FINGER_PX)).sort((a, z) => far(a) - far(z) || a.w * a.h - z.w * z.h);
        if (near.length < 2) return;
        e.stopPropagation();
        onAsk(near.slice(0, 8).map((p) => p.address));
      }}
    >
      <defs>
        <pattern id="no-power" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V7" stroke="var(--soft)" strokeWidth="1.500" />
        </pattern>
      </defs>
      <rect x={b.x} y={b.y} width={b.w} height={b.h} fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2" />
      {scene.board?.type.body.landmarks.map((m) => (
        <g key={m.label}>
          <rect
            x={b.x + m.at.xMm * scale}
            y={b.y + m.at.yMm * scale}
            width={m.widthMm * scale}
            height={m.heightMm * scale}
            fill="none"
            stroke="var(--edge)"
          />
        </g>
      ))}
      {scene.board?.type.body.holes.map((h) => (
        <circle key={h.id} cx={b.x + h.at.xMm * scale} cy={b.y + h.at.yMm * scale} r={3.2} fill="none" stroke="var(--edge)" />
      ))}
      {ports
        .filter((p) => !p.landmark)
        .map((p) => (
          <Stub key={p.address} p={p} leads={atPort.get(p.address) ?? []} dim={chosen !== null || loom !== null} />
        ))}
      {routes.map((r) => (
        <LoomPath key={r.lead.address} d={r.d} loom={r.lead.loom} />
      ))}
      {[...ports]
        .sort((a, z) => Number(z.landmark) - Number(a.landmark))
        .map((p) => (
          <Port
            key={p.address}
            p={p}
            leads={atPort.get(p.address) ?? []}
            chosen={p.address === chosenPort || portsOfChosen.has(p.address)}
            open={open.has(p.address)}
            onPort={onPort}
          />
        ))}
      {labels.map((l) => (
        <g key={l.address} pointerEvents="none">
          <path d={l.leader} fill="none" stroke="var(--edge)" strokeWidth="1" />
          <text
            x={l.x}
            y={l.y + 4}
            textAnchor={l.anchor}
            className="mono"
            fontSize="12"
            fontWeight={portsOfChosen.has(l.address) || l.address === chosenPort ? 700 : 450}
            fill="var(--ink)"
            paintOrder="stroke"
            stroke="var(--ground)"
            strokeWidth="3"
          >
            {l.lines.join("")}
          </text>
        </g>
      ))}
      {docks.map((d) => {
        const part = scene.graph.parts.get(d.id);
        const unfed = part?.type.kind === "hub" && part.type.ports.some((q) => q.flow === "in" && !scene.graph.atPort.get(`${d.id}:${q.id}`)?.length);
        const holds = holdsOf.get(d.id) ?? [d.id];
        const on = holds.some(
          (id) =>
            (docksOn.has(id) && chosen !== null) || (chosenLead?.port ?? "").startsWith(`${id}:`) || chosenLead?.port === id || chosenPort === id,
        );
        return (
          <g key={d.id} className="cursor-pointer" data-dock onClick={() => onDock(holds)}>
            <title>
              {part
                ? (part.part.label ?? part.type.name)
                : holds.length > 1
                  ? holds.map((id) => scene.graph.parts.get(id)?.part.label ?? id).join(", ")
                  : d.lines.join(" ")}
            </title>
            <rect
              x={d.x}
              y={d.y}
              width={d.w}
              height={d.h}
              rx={8}
              fill={unfed ? "url(#no-power)" : "var(--sheet)"}
              stroke={on ? "var(--ink)" : "var(--edge)"}
              strokeWidth={on ? 2.5 : 1.5}
            />
            {(unfed && d.h > 30 ? ["no", "power"] : d.h < 30 ? [d.lines.at(-1) ?? ""] : dockWords(d)).map((t, i, all) => (
              <text
                key={`${t}${String(i)}`}
                x={d.x + d.w / 2}
                y={d.y + d.h / 2 + 4 + (i - (all.length - 1) / 2) * 13}
                textAnchor="middle"
                fontSize={t.length * 6.6 > d.w - 4 ? "11" : "12"}
                className={i > 0 ? "mono" : undefined}
                fill="var(--ink)"
              >
                {t}
              </text>
            ))}
          </g>
        );
      })}
    </svg>
  );
});

/** Broken at blanks where the dock is narrow, unless it is too low for one line more. */
function dockWords({ lines, w, h }: DockItem): string[] {
  const broken = lines.flatMap((t) => (t.length * 6.6 > w - 4 && t.includes(" ") ? t.split(" ") : [t]));
  // Where height is short too, "9 leads" becomes "9", as gathered docks say it.
  return broken.length * 13 <= h ? broken : lines.map((t) => (t.length * 6.6 > w - 4 ? (/^\d+(?= )/.exec(t)?.[0] ?? t) : t));
}

/** At rest a lead is 14 px of its cord, pointing outwards. */
function Stub({ p, leads, dim }: { p: PlacedPort; leads: LeadRow[]; dim: boolean }) {
  const first = leads[0];
  if (!first || first.loom === "seat") return null;
  const d =
    p.edge === "top"
      ? `M${p.cx} ${p.y}v-14`
      : p.edge === "bottom"
        ? `M${p.cx} ${p.y + p.h}v14`
        : p.edge === "left"
          ? `M${p.x} ${p.cy}h-14`
          : `M${p.x + p.w} ${p.cy}h14`;
  return <LoomPath d={d} loom={first.loom} dim={dim} />;
}

function Port({ p, leads, chosen, open, onPort }: { p: PlacedPort; leads: LeadRow[]; chosen: boolean; open: boolean; onPort: (a: string) => void }) {
  const wrong = leads.some((l) => l.state === "wrong" || l.severity === "stop");
  const done = leads.length > 0 && leads.every((l) => l.state === "plugged" || l.state === "checked");
  const planned = leads.length > 0 && !done;
  const fill = chosen ? "var(--mark)" : done && !p.landmark ? "var(--ink)" : "var(--sheet)";
  return (
    <g className="cursor-pointer" onClick={() => onPort(p.address)}>
      <title>{`${p.label}: ${leads.length === 0 ? "free" : leads.map((l) => `${l.tag} ${l.name}, ${l.state}`).join("; ")}`}</title>
      {chosen || open ? (
        <rect
          x={p.x - 5}
          y={p.y - 5}
          width={p.w + 10}
          height={p.h + 10}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={chosen ? 2 : 1.5}
          strokeDasharray={chosen ? undefined : "3 3"}
        />
      ) : null}
      <rect
        x={p.x}
        y={p.y}
        width={p.w}
        height={p.h}
        fill={fill}
        stroke={p.landmark ? "var(--edge)" : "var(--ink)"}
        strokeWidth={p.landmark ? 1 : 1.5}
      />
      {planned && !p.landmark && !chosen ? <circle cx={p.cx} cy={p.cy} r={2.4} fill="var(--ink)" /> : null}
      {p.landmark && leads.length > 0 ? (
        <rect
          x={p.x + 3}
          y={p.y + 3}
          width={Math.max(2, p.w - 6)}
          height={Math.max(2, p.h - 6)}
          fill={done ? "var(--rule)" : "none"}
          stroke="var(--rule)"
        />
      ) : null}
      {p.landmark && p.w > 40 ? (
        <text x={p.cx} y={p.cy + 4} textAnchor="middle" fontSize="12" className="mono" fill="var(--ink)">
          {p.label}
        </text>
      ) : null}
      {wrong ? <path d={`M${p.x + p.w} ${p.y - 8}l8 8-8 8-8-8z`} fill="var(--stop)" /> : null}
    </g>
  );
}
