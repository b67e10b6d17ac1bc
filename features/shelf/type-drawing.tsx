"use client";
import { useRef, useState } from "react";
import { shapeOf } from "../../core/catalogue";
import { cssMatrix, type Ground } from "../../core/photo";
import { portSizeMm } from "../../ui/drawing/port-size";
import { Toolbar, ToolbarKey } from "../../ui/toolbar";
import { type Draft, get, type Json } from "./draft";

interface Thing {
  path: (string | number)[];
  label: string;
  xMm: number;
  yMm: number;
  wMm: number;
  hMm: number;
  /** Tie points are drawn as rings. */
  round?: true;
  /** Its place is its upper left corner. */
  corner?: true;
}

const num = (v: Json | undefined, or: number) => (typeof v === "number" && Number.isFinite(v) ? v : or);
const text = (v: Json | undefined) => (typeof v === "string" ? v : "");
const list = (v: Json | undefined): Json[] => (Array.isArray(v) ? v : []);

function thingsOf(draft: Draft, side: "front" | "rear"): Thing[] {
  const at = (v: Json, path: (string | number)[], label: string, size: readonly [number, number]): Thing => ({
    path,
    label,
    xMm: num(get(v, ["at", "xMm"]), 0),
    yMm: num(get(v, ["at", "yMm"]), 0),
    wMm: size[0],
    hMm: size[1],
  });
  if (draft.kind === "board")
    return list(draft.ports).map((p, i) =>
      at(p, ["ports", i, "at"], text(get(p, ["label"])), portSizeMm(shapeOf(text(get(p, ["family"]))), num(get(p, ["turned"]), 0))),
    );
  if (draft.kind === "case")
    return [
      ...list(get(draft, ["body", "mounts"])).flatMap((m, i) => {
        const region = text(get(m, ["region"]));
        if ((region === "behind-tray") !== (side === "rear")) return [];
        const fan = list(get(m, ["takes"])).includes("fan");
        const size = num(get(m, ["sizeMm"]), 60);
        const level = region === "top" || region === "bottom";
        return at(m, ["body", "mounts", i, "at"], text(get(m, ["label"])), fan && region !== "side" ? (level ? [size, 25] : [25, size]) : [60, 22]);
      }),
      ...list(get(draft, ["body", "cutouts"])).map((c, i) =>
        at(c, ["body", "cutouts", i, "at"], text(get(c, ["label"])), [num(get(c, ["widthMm"]), 20), num(get(c, ["heightMm"]), 45)]),
      ),
      ...list(get(draft, ["body", "bodies"])).flatMap((b, i) => {
        if (get(b, ["side"]) !== side) return [];
        const [w, h] = [num(get(b, ["widthMm"]), 60), num(get(b, ["heightMm"]), 60)];
        const one = at(b, ["body", "bodies", i, "at"], text(get(b, ["label"])), [w, h]);
        // Entered by its corner, drawn about its middle.
        return [{ ...one, corner: true as const }];
      }),
      ...list(get(draft, ["body", "channels"])).flatMap((c, i) =>
        get(c, ["side"]) === side
          ? (["from", "to"] as const).map((end) => ({
              path: ["body", "channels", i, end],
              label: `${text(get(c, ["label"]))}, ${end === "from" ? "one end" : "other end"}`,
              xMm: num(get(c, [end, "xMm"]), 0),
              yMm: num(get(c, [end, "yMm"]), 0),
              wMm: 9,
              hMm: 9,
              round: true as const,
            }))
          : [],
      ),
      ...list(get(draft, ["body", "tiePoints"])).flatMap((t, i) =>
        get(t, ["side"]) === side ? [{ ...at(t, ["body", "tiePoints", i, "at"], text(get(t, ["label"])), [8, 8]), round: true as const }] : [],
      ),
    ];
  return [];
}

/** The part to scale beside its form. A port or mount is moved by pointer, or by the arrow keys: 1 mm, with Shift 10. */
export function TypeDrawing({
  draft,
  chosen,
  onChoose,
  onMove,
  marked = [],
  ground,
}: {
  draft: Draft;
  chosen: string;
  onChoose: (path: string) => void;
  onMove: (path: (string | number)[], xMm: number, yMm: number) => void;
  /** Sentences of what contradicts itself: what they name is marked. */
  marked?: readonly string[];
  /** A photo that lies under it, and how. */
  ground?: { src: string; width: number; height: number; is: Ground } | undefined;
}) {
  const svg = useRef<SVGSVGElement>(null);
  const drag = useRef<{ thing: Thing; dx: number; dy: number } | null>(null);
  const w = Math.max(1, num(get(draft, ["body", "widthMm"]), 120));
  const h = Math.max(1, num(get(draft, ["body", "heightMm"]), 60));
  const [side, setSide] = useState<"front" | "rear">("front");
  const things = thingsOf(draft, side);
  // Seen from behind, left is right.
  const mirrored = draft.kind === "case" && side === "rear";
  const across = (xMm: number) => (mirrored ? w - xMm : xMm);
  const s = Math.min(440 / Math.max(1, w), 520 / Math.max(1, h));
  const pad = 46;
  const where = (e: React.PointerEvent) => {
    const m = svg.current?.getScreenCTM()?.inverse();
    const p = m ? new DOMPoint(e.clientX, e.clientY).matrixTransform(m) : { x: 0, y: 0 };
    return { x: across(p.x / s), y: p.y / s };
  };
  if (things.length === 0 && !get(draft, ["body", "widthMm"]))
    return <p className="text-second text-soft">This kind has no outline to draw: its leads and numbers say it all.</p>;
  return (
    <>
      {draft.kind === "case" ? (
        <Toolbar label="Side of the tray" className="gap-2">
          {(["front", "rear"] as const).map((v) => (
            <ToolbarKey key={v} pressed={side === v} onClick={() => setSide(v)}>
              {v === "front" ? "Tray, front" : "Tray, rear"}
            </ToolbarKey>
          ))}
          <span className="text-second text-soft">{mirrored ? "From behind: the front is left." : "The rear is left."}</span>
        </Toolbar>
      ) : null}
      <svg
        ref={svg}
        className="max-h-[600px] w-full touch-none"
        viewBox={`${-pad} ${-pad} ${w * s + 2 * pad} ${h * s + 2 * pad}`}
        role="group"
        aria-label={`${text(draft.name)}, to scale: ${things.length} places`}
        onPointerMove={(e) => {
          const d = drag.current;
          if (!d) return;
          const p = where(e);
          onMove(d.thing.path, Math.round(p.x - d.dx), Math.round(p.y - d.dy));
        }}
        onPointerUp={() => {
          drag.current = null;
        }}
      >
        <rect
          width={w * s}
          height={h * s}
          fill="var(--sheet)"
          stroke="var(--ink)"
          strokeWidth="2"
          // What is chosen goes where one presses: on a photo that is quicker than to drag.
          onPointerDown={(e) => {
            const thing = ground && things.find((t) => t.path.join(".") === chosen);
            if (!thing) return;
            const p = where(e);
            onMove(thing.path, Math.round(p.x), Math.round(p.y));
          }}
        />
        {ground ? (
          <foreignObject width={w * s} height={h * s} className="pointer-events-none overflow-hidden" aria-hidden>
            {/* biome-ignore lint/performance/noImgElement: a photo of the shop's own store, laid flat by a matrix */}
            <img
              alt=""
              src={ground.src}
              width={ground.width}
              height={ground.height}
              style={{ maxWidth: "none", width: ground.width, height: ground.height, transformOrigin: "0 0", transform: cssMatrix(ground.is, s) }}
            />
          </foreignObject>
        ) : null}
        {draft.kind === "case" && side === "front" && get(draft, ["body", "boardAt"]) ? (
          <rect
            x={num(get(draft, ["body", "boardAt", "xMm"]), 0) * s}
            y={num(get(draft, ["body", "boardAt", "yMm"]), 0) * s}
            width={Math.max(...list(get(draft, ["body", "holes"])).map((o) => num(get(o, ["at", "xMm"]), 0)), 100) * s + 7 * s}
            height={Math.max(...list(get(draft, ["body", "holes"])).map((o) => num(get(o, ["at", "yMm"]), 0)), 100) * s + 17 * s}
            fill="none"
            stroke="var(--edge)"
            strokeDasharray="5 4"
            className="pointer-events-none"
          />
        ) : null}
        {draft.kind === "board"
          ? list(get(draft, ["body", "holes"])).map((o, i) => (
              <circle
                key={`${String(i)}${text(get(o, ["id"]))}`}
                cx={num(get(o, ["at", "xMm"]), 0) * s}
                cy={num(get(o, ["at", "yMm"]), 0) * s}
                r="3.500"
                fill="none"
                stroke="var(--edge)"
              />
            ))
          : null}
        <text x={(w * s) / 2} y={-14} textAnchor="middle" fontSize="12" fill="var(--ink)">
          {w} mm
        </text>
        <text x={-14} y={(h * s) / 2} textAnchor="middle" fontSize="12" fill="var(--ink)" transform={`rotate(-90 -14 ${(h * s) / 2})`}>
          {h} mm
        </text>
        {draft.kind === "case"
          ? list(get(draft, ["body", "channels"])).map((c, i) =>
              get(c, ["side"]) === side ? (
                <line
                  key={`channel${String(i)}`}
                  x1={across(num(get(c, ["from", "xMm"]), 0)) * s}
                  y1={num(get(c, ["from", "yMm"]), 0) * s}
                  x2={across(num(get(c, ["to", "xMm"]), 0)) * s}
                  y2={num(get(c, ["to", "yMm"]), 0) * s}
                  stroke="var(--edge)"
                  strokeWidth="7"
                  strokeLinecap="round"
                />
              ) : null,
            )
          : null}
        {things.map((t) => {
          const key = t.path.join(".");
          const on = key === chosen;
          const odd = marked.some((m) => m.includes(t.label));
          return (
            <g
              key={key}
              role="button"
              tabIndex={0}
              aria-pressed={on}
              aria-label={`${t.label}, ${t.xMm} mm from the left, ${t.yMm} mm from the top${odd ? "; it contradicts the rest" : ""}`}
              className="cursor-move"
              onPointerDown={(e) => {
                const p = where(e);
                drag.current = { thing: t, dx: p.x - t.xMm, dy: p.y - t.yMm };
                (e.currentTarget.ownerSVGElement as SVGSVGElement | null)?.setPointerCapture(e.pointerId);
                onChoose(key);
              }}
              onFocus={() => onChoose(key)}
              onKeyDown={(e) => {
                const by = e.shiftKey ? 10 : 1;
                const right = mirrored ? -by : by;
                const step = { ArrowLeft: [-right, 0], ArrowRight: [right, 0], ArrowUp: [0, -by], ArrowDown: [0, by] }[e.key];
                if (!step) return;
                e.preventDefault();
                onMove(t.path, t.xMm + (step[0] ?? 0), t.yMm + (step[1] ?? 0));
              }}
            >
              <rect
                x={(across(t.corner ? t.xMm + t.wMm / 2 : t.xMm) - t.wMm / 2) * s}
                y={(t.corner ? t.yMm : t.yMm - t.hMm / 2) * s}
                width={Math.max(6, t.wMm * s)}
                height={Math.max(6, t.hMm * s)}
                rx={t.round ? 6 : 0}
                fill={on ? "var(--ink)" : "var(--raised)"}
                fillOpacity={ground ? (on ? 0.7 : 0.35) : t.wMm * t.hMm > 1500 && !on ? 0 : 1}
                stroke="var(--ink)"
                strokeWidth={on ? 2.5 : 1.2}
              />
              {odd ? (
                <path
                  d="M0 -7l7 12h-14z"
                  transform={`translate(${across(t.xMm) * s} ${t.yMm * s})`}
                  fill="var(--ground)"
                  stroke="var(--warn)"
                  strokeWidth="2"
                  aria-hidden
                />
              ) : null}
              <title>{t.label}</title>
            </g>
          );
        })}
        {/* Over everything else, wherever it stands. */}
        {things.map((t) =>
          t.path.join(".") === chosen ? (
            <text
              key="label"
              x={across(t.xMm) * s}
              y={(t.yMm - t.hMm / 2) * s - 6}
              textAnchor={across(t.xMm) > w * 0.75 ? "end" : across(t.xMm) < w * 0.25 ? "start" : "middle"}
              fontSize="13"
              className="mono pointer-events-none"
              fontWeight="700"
              fill="var(--ink)"
              paintOrder="stroke"
              stroke="var(--ground)"
              strokeWidth="4"
              aria-hidden
            >
              {t.label} {t.xMm}, {t.yMm} mm
            </text>
          ) : null,
        )}
      </svg>
    </>
  );
}
