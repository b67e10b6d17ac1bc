"use client";
import { useMemo } from "react";
import type { Graph } from "../../core/assembly";
import { type Card, notInYet, type Step } from "../../core/order";
import type { Scene } from "../../core/scene";
import { MachineView, type Px } from "../drawing/machine-view";
import { unplannedCards } from "../shared/unplanned-cards";

const MOST = { w: 640, h: 330 };

/** From which side of the tray a card is worked at. */
export const sheetOf = (card: Card | undefined): "front" | "behind" => (card?.posture === "behind-up" ? "behind" : "front");

/** The places of a card in the machine, as the case lies for it: what is moved, where leads run, and hatched what it covers. */
export function OrderDrawing({ graph, card, steps }: { graph: Graph; card: Card | undefined; steps: readonly Step[] }) {
  const sheet = sheetOf(card);
  const on = useMemo(() => new Set((card?.steps ?? []).flatMap((s) => s.parts).filter((p) => p !== "case")), [card]);
  const covered = useMemo(() => {
    const ids = new Set((card?.steps ?? []).flatMap((s) => s.covers));
    return steps.filter((s) => ids.has(s.id));
  }, [card, steps]);
  const later = useMemo(() => notInYet(steps, card, unplannedCards(graph)), [graph, steps, card]);
  const where = card
    ? `${card.title}, ${sheet === "front" ? "front of the tray, rear sockets to the left" : "from behind, rear sockets to the right"}`
    : "The machine";
  return (
    <MachineView graph={graph} most={MOST} fills label={where} on={on} sheet={sheet} later={later}>
      {(px, scene) => <Layer px={px} scene={scene} sheet={sheet} steps={card?.steps ?? []} covered={covered} />}
    </MachineView>
  );
}

function Layer({
  px,
  scene,
  sheet,
  steps,
  covered,
}: {
  px: Px;
  scene: Scene;
  sheet: "front" | "behind";
  steps: readonly Step[];
  covered: readonly Step[];
}) {
  const ports = new Map(scene.ports.map((p) => [p.address, p]));
  const led = steps.filter((s) => s.kind === "route" || s.kind === "dress").flatMap((s) => s.leads);
  const hidden = covered.flatMap((s) => (s.port ? (ports.get(s.port) ?? []) : [])).filter((p) => p.sheets.includes(sheet));
  const mine = steps
    .flatMap((s) => (s.rig?.ports ?? (s.port ? [s.port] : [])).flatMap((a) => ports.get(a) ?? []))
    .filter((p) => p.sheets.includes(sheet));
  return (
    <g>
      <defs>
        <pattern id="order-covers" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V6" stroke="var(--warn)" strokeWidth="2" />
        </pattern>
      </defs>
      {led.flatMap((lead) =>
        (scene.routes.byLead.get(lead)?.way?.stretches ?? [])
          .filter((s) => s.sheet === sheet)
          .map((s) => {
            const d = s.points.map((p) => px.at(p)).map((p, n) => `${n === 0 ? "M" : "L"}${p.x.toFixed(1)} ${p.y.toFixed(1)}`);
            return <path key={`${lead}${d[0]}`} d={d.join("")} fill="none" stroke="var(--mark)" strokeWidth="2" />;
          }),
      )}
      {hidden.map((p) => {
        const r = px.box(p.rect);
        return <rect key={`h${p.address}`} x={r.x - 4} y={r.y - 4} width={r.w + 8} height={r.h + 8} fill="url(#order-covers)" stroke="var(--warn)" />;
      })}
      {mine.map((p) => {
        const r = px.box(p.rect);
        return <rect key={`m${p.address}`} x={r.x - 2} y={r.y - 2} width={r.w + 4} height={r.h + 4} fill="var(--mark)" />;
      })}
    </g>
  );
}
