"use client";
import { type Dispatch, useDeferredValue, useEffect, useMemo, useRef, useState } from "react";
import type { Graph } from "../../core/assembly";
import { LOOM_NAME } from "../../core/catalogue";
import { type Scene, seenRect } from "../../core/scene";
import { BOARD_REGIONS } from "../../core/sheet";
import type { LeadRow } from "../../server/views/lead-rows";
import { Button } from "../../ui/button";
import { type LoomName, LoomSwatch } from "../../ui/loom";
import { Toolbar, ToolbarKey } from "../../ui/toolbar";
import { useBoxSize } from "../frame/use-box-size";
import { useLater } from "../frame/use-later";
import { goesOn, insetIn, MachinePlan, OtherSheet } from "./machine-plan";
import { RegionMap, regionOfMachine } from "./region-map";
import { usePinch } from "./use-pinch";
import { WhichPort } from "./which-port";
import type { WiringDoing, WiringState } from "./wiring-state";

/** px a mm; the whole fits the room that there is. */
const ZOOMS = [
  { name: "Whole", scale: 0 },
  { name: "Region", scale: 3 },
  { name: "Port", scale: 6 },
] as const;
/** From this width on both sides of the tray stand beside each other. */
const BOTH_FROM_PX = 1040;

/** The machine from one side of its tray or both, as near as was asked for, and the keys for that. */
export function MachinePane({
  scene,
  graph,
  leads,
  state,
  happen,
  open,
  looms,
  onPort,
  onPart,
  onLead,
}: {
  scene: Scene;
  graph: Graph;
  leads: LeadRow[];
  state: WiringState;
  happen: Dispatch<WiringDoing>;
  /** Ports that what is taken could go into. */
  open: ReadonlySet<string>;
  looms: readonly LoomName[];
  onPort: (address: string) => void;
  onPart: (ids: readonly string[]) => void;
  onLead: (address: string) => void;
}) {
  // Keys answer at once; the drawing follows in short tasks of its own, however much there is to draw.
  const asked = useMemo(
    () => ({
      loom: state.loom,
      zoom: state.zoom,
      region: state.region,
      sheet: state.sheet,
      chosen: state.hand.at === "lead" || state.hand.at === "taking" ? state.hand.lead : null,
      chosenPort: state.hand.at === "port" ? state.hand.port : null,
      open,
    }),
    [state, open],
  );
  const shown = useDeferredValue(asked);
  const { loom, zoom, region, sheet, chosen, chosenPort } = shown;
  const lead = leads.find((l) => l.address === chosen);
  const drawn = useLater(useMemo(() => ({ scene, leads }), [scene, leads]));
  const [ask, setAsk] = useState<string[]>([]);
  const box = useRef<HTMLDivElement>(null);
  // Where the screen is small its words would be too: the region first, the whole by a press.
  useEffect(() => {
    if (window.matchMedia("(max-width: 1024px)").matches) happen({ do: "zoom", to: 1 });
  }, [happen]);
  usePinch(box, (by) => happen({ do: "zoom", to: asked.zoom + by }));
  const filled = useMemo(() => new Set(leads.flatMap((l) => l.port ?? [])), [leads]);
  // The whole machine in the room that there is; both sides of the tray where there is room for them.
  const room = useBoxSize(box, { w: 608, h: 648 });
  const sides = room.w >= BOTH_FROM_PX && zoom === 0 && scene.hasCase ? 2 : 1;
  const base = useMemo(
    () => Math.max(0.7, Math.min(2.6, (room.h - 44) / scene.view.heightMm, (room.w / sides - 24) / scene.view.widthMm)),
    [scene, room, sides],
  );
  const scale = Math.max(base, ZOOMS[zoom]?.scale ?? 0);

  // With nothing chosen: to where the plugs of the loom are on this side.
  const middle = useMemo(() => {
    const v = scene.view;
    const mine = scene.ports.filter((p) => p.sheets.includes(sheet) && (!loom || leads.some((l) => l.loom === loom && l.port === p.address)));
    const rects = mine.map((p) => seenRect(scene, sheet, p.rect));
    const mean = (of: (r: (typeof rects)[number]) => number) => rects.reduce((n, r) => n + of(r), 0) / rects.length;
    return rects.length === 0 ? { x: v.widthMm / 2, y: v.heightMm / 2 } : { x: mean((r) => r.xMm) - v.xMm, y: mean((r) => r.yMm) - v.yMm };
  }, [scene, sheet, loom, leads]);
  const chosenAt = scene.ports.find((p) => p.address === (chosenPort ?? lead?.port) && p.sheets.includes(sheet));
  useEffect(() => {
    const el = box.current;
    if (!el || zoom === 0) return;
    const third = BOARD_REGIONS.find((r) => r.name === region);
    const r = chosenAt && seenRect(scene, sheet, chosenAt.rect);
    const { view: v } = scene;
    const at = third
      ? { x: third.x * v.widthMm, y: third.y * v.heightMm }
      : r
        ? { x: r.xMm + r.widthMm / 2 - v.xMm, y: r.yMm + r.heightMm / 2 - v.yMm }
        : middle;
    el.scrollTo({ left: at.x * scale + 8 - el.clientWidth / 2, top: at.y * scale + 8 - el.clientHeight / 2 });
  }, [zoom, scale, chosenAt, region, scene, sheet, middle]);
  const other = sheet === "front" ? ("behind" as const) : ("front" as const);
  const inset = useMemo(() => {
    const { scene, leads } = drawn;
    const wanted = sides === 1 && zoom === 0 && goesOn(scene, leads, other, loom, chosen);
    return wanted ? insetIn({ scene, leads, sheet, loom, chosen, chosenPort, open: shown.open, scale }) : undefined;
  }, [drawn, sides, zoom, other, sheet, loom, chosen, chosenPort, shown.open, scale]);
  return (
    <section data-tall data-first aria-label="Plan" className="relative flex min-w-0 flex-1 flex-col" data-plan>
      <div className="flex min-h-9 shrink-0 items-center gap-3 px-2 text-second">
        <span className="min-w-0 flex-1 truncate">
          {sides === 2
            ? "Front of the tray, and behind it as seen from behind."
            : sheet === "front"
              ? scene.hasCase
                ? "Front of the tray, rear sockets left"
                : "The board, rear sockets left; no case yet"
              : "From behind: mirrored, rear sockets right"}
          {scene.assumed.length > 0 ? `. Assumed: ${scene.assumed.join(", ")}` : ""}
        </span>
        {sides === 1 && scene.hasCase ? (
          <Button className="shrink-0 px-2 text-second" onClick={() => happen({ do: "turn" })}>
            {sheet === "front" ? "Look behind the tray" : "Look at the front"}
          </Button>
        ) : null}
      </div>
      <div
        ref={box}
        role="group"
        aria-label="Drawing of the machine"
        className="flex min-h-0 flex-1 touch-pan-x touch-pan-y overflow-auto"
        tabIndex={0}
      >
        <div className="relative m-auto flex gap-2">
          {(sides === 2 ? (["front", "behind"] as const) : [sheet]).map((side) => (
            <MachinePlan
              key={side}
              scene={drawn.scene}
              leads={drawn.leads}
              sheet={side}
              loom={loom}
              chosen={chosen}
              chosenPort={chosenPort}
              open={shown.open}
              scale={scale}
              namesAll={zoom > 0}
              covered={inset}
              onPort={onPort}
              onPart={onPart}
              onLead={onLead}
              onAsk={setAsk}
            />
          ))}
          {inset ? (
            <OtherSheet
              scene={drawn.scene}
              leads={drawn.leads}
              sheet={other}
              loom={loom}
              chosen={chosen}
              chosenPort={chosenPort}
              open={shown.open}
              at={inset}
              large={scale}
              onTurn={() => happen({ do: "turn" })}
            />
          ) : null}
        </div>
      </div>
      {zoom > 0 ? (
        <div className="relative h-0">
          <RegionMap
            scene={scene}
            sheet={sheet}
            filled={filled}
            now={region ?? (chosenAt ? regionOfMachine(scene, sheet, chosenAt.rect) : "middle centre")}
            onRegion={(name) => happen({ do: "region", region: name })}
          />
        </div>
      ) : null}
      <WhichPort
        ports={ask}
        nameOf={(a) => graph.ports.get(a)?.name ?? a}
        leads={leads}
        onPick={(a) => {
          setAsk([]);
          onPort(a);
        }}
        onClose={() => setAsk([])}
      />
      <Toolbar label="Looms and zoom" className="min-h-12 shrink-0 !gap-1 overflow-x-auto border-t border-rule px-2 py-1.5">
        {looms.map((l) => (
          <ToolbarKey
            key={l}
            className="gap-1 px-1.5 text-second"
            pressed={asked.loom === l}
            onClick={() => happen({ do: "loom", loom: asked.loom === l ? null : l })}
          >
            <LoomSwatch loom={l} width={22} />
            {LOOM_NAME[l]}
          </ToolbarKey>
        ))}
        <span className="flex-1" />
        {ZOOMS.map((z, i) => (
          <ToolbarKey key={z.name} className="px-1.5 text-second" pressed={asked.zoom === i} onClick={() => happen({ do: "zoom", to: i })}>
            {z.name}
          </ToolbarKey>
        ))}
      </Toolbar>
    </section>
  );
}
