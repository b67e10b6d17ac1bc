"use client";
import { memo } from "react";
import type { Drawn, Ink, Item } from "../../core/scene";
import { LoomPath } from "../../ui/loom";

const INK: Record<Ink, { stroke: string; width: number; dash?: string }> = {
  case: { stroke: "var(--ink)", width: 2 },
  tray: { stroke: "var(--edge)", width: 0.75 },
  board: { stroke: "var(--ink)", width: 1.25 },
  part: { stroke: "var(--ink)", width: 1 },
  hung: { stroke: "var(--ink)", width: 1 },
  dock: { stroke: "var(--edge)", width: 1 },
  overlay: { stroke: "var(--ink)", width: 1 },
  landmark: { stroke: "var(--edge)", width: 1 },
  cutout: { stroke: "var(--edge)", width: 1 },
  ghost: { stroke: "var(--edge)", width: 1, dash: "4 4" },
  free: { stroke: "var(--edge)", width: 1, dash: "4 4" },
  port: { stroke: "var(--ink)", width: 1 },
};
/** Depth as a tone: the inside of the case darkest, what stands in front lightest. */
const toneInk = (tone: number | undefined): string => (tone === undefined ? "none" : `var(--tone-${tone})`);

export interface SceneItemsProps {
  drawn: Drawn;
  /** Parts that are pointed out. */
  on?: ReadonlySet<string>;
  titleOfPort?: (address: string) => string;
  onPart?: (id: string) => void;
  onPort?: (address: string) => void;
  onLead?: (address: string) => void;
  /** Bench lines are so much wider, bench words so large. */
  bench?: boolean;
  font?: number;
  id: string;
}

/** A sheet of the machine as the core lays it out, in the inks of the screen. */
export const SceneItems = memo(function SceneItems(props: SceneItemsProps) {
  const { drawn, id } = props;
  return (
    <>
      <defs>
        <pattern id={`no-power-${id}`} width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V7" stroke="var(--soft)" strokeWidth="1.500" />
        </pattern>
      </defs>
      {drawn.items.map((item, i) => (
        <One key={keyOf(item, i)} item={item} {...props} />
      ))}
    </>
  );
});

const keyOf = (item: Item, i: number) =>
  item.kind === "port"
    ? `p${item.port.address}`
    : item.kind === "label"
      ? `l${item.label.id}`
      : item.kind === "lead"
        ? `w${item.lead}${i}`
        : `${item.kind}${i}`;

function One({ item, on, titleOfPort, onPart, onPort, onLead, bench, font = 12, id }: SceneItemsProps & { item: Item }) {
  switch (item.kind) {
    case "rect": {
      const ink = INK[item.ink];
      const of = item.of;
      const lit = of !== undefined && item.ink !== "board" && on?.has(of);
      const press = of !== undefined && item.ink !== "board" && onPart ? () => onPart(of) : undefined;
      return (
        <g className={press ? "cursor-pointer" : undefined} data-part={of} onClick={press}>
          {item.title ? <title>{item.title}</title> : null}
          <rect
            x={item.box.x}
            y={item.box.y}
            width={Math.max(1, item.box.w)}
            height={Math.max(1, item.box.h)}
            rx={item.round ?? 0}
            fill={item.unfed ? `url(#no-power-${id})` : toneInk(item.tone)}
            stroke={lit ? "var(--ink)" : ink.stroke}
            strokeWidth={lit ? 3 : ink.width * (bench ? 1.3 : 1)}
            strokeDasharray={ink.dash ?? (item.dashed ? "7 3" : undefined)}
            pointerEvents={press ? "all" : undefined}
          />
        </g>
      );
    }
    case "detail":
      return (
        <path d={item.d} fill={toneInk(item.fill)} stroke={item.line ? "var(--edge)" : "none"} strokeWidth={bench ? 1 : 0.75} pointerEvents="none" />
      );
    case "tick":
      return <path d={pathOf(item.points)} stroke="var(--soft)" strokeWidth="2" fill="none" pointerEvents="none" />;
    case "hole":
      return <circle cx={item.x} cy={item.y} r={item.r} fill="none" stroke="var(--edge)" pointerEvents="none" />;
    case "lead": {
      const d = pathOf(item.points);
      return (
        <g className={onLead ? "cursor-pointer" : undefined} data-lead={item.lead} onClick={onLead ? () => onLead(item.lead) : undefined}>
          <LoomPath d={d} loom={item.loom} dim={item.dim} scale={bench ? 1.6 : 1} />
          {onLead ? <path d={d} fill="none" stroke="transparent" strokeWidth="10" pointerEvents="stroke" /> : null}
        </g>
      );
    }
    case "count":
      return (
        <g pointerEvents="none">
          <title>{`${item.words} leads lie together here`}</title>
          <rect x={item.x - 13} y={item.y - 9} width={26} height={18} rx={9} fill="var(--sheet)" stroke="var(--ink)" strokeWidth="1.5" />
          <text x={item.x} y={item.y + 4} textAnchor="middle" fontSize="12" className="mono" fill="var(--ink)">
            {item.words}
          </text>
        </g>
      );
    case "port":
      return (
        <Port
          item={item}
          {...(titleOfPort ? { title: titleOfPort(item.port.address) } : {})}
          {...(onPort ? { onPort } : {})}
          bench={bench === true}
        />
      );
    case "label": {
      const { lines, leader, turned } = item.label;
      const [mx, my] = [item.label.box.x + item.label.box.w / 2, item.label.box.y + item.label.box.h / 2];
      const box = turned ? { x: mx - item.label.box.h / 2, y: my - item.label.box.w / 2, w: item.label.box.h, h: item.label.box.w } : item.label.box;
      const high = box.h / lines.length;
      return (
        <g pointerEvents="none" transform={turned ? `rotate(-90 ${mx} ${my})` : undefined}>
          {leader ? <path d={`M${leader.x1} ${leader.y1}L${leader.x2} ${leader.y2}`} stroke="var(--soft)" strokeWidth="1" fill="none" /> : null}
          {lines.map((t, k) => (
            <text
              key={t + String(k)}
              x={box.x + box.w / 2}
              y={box.y + high * (k + 0.5) + font * 0.35}
              textAnchor="middle"
              fontSize={font}
              className={item.mono ? "mono" : undefined}
              fontWeight={item.strong ? 750 : 450}
              fill="var(--ink)"
              paintOrder="stroke"
              stroke="var(--sheet)"
              strokeWidth={font / 4}
              strokeLinejoin="round"
            >
              {t}
            </text>
          ))}
        </g>
      );
    }
  }
}

const pathOf = (points: readonly (readonly [number, number])[]) => points.map(([x, y], i) => `${i === 0 ? "M" : "L"}${x} ${y}`).join("");

function Port({
  item,
  title,
  onPort,
  bench,
}: {
  item: Extract<Item, { kind: "port" }>;
  title?: string;
  onPort?: (address: string) => void;
  bench: boolean;
}) {
  const { box: b, port, state, chosen, open } = item;
  const fill = chosen ? "var(--mark)" : state === "done" && !port.landmark ? "var(--ink)" : "var(--tone-5)";
  return (
    <g className={onPort ? "cursor-pointer" : undefined} data-port={port.address} onClick={onPort ? () => onPort(port.address) : undefined}>
      <title>{title ?? port.label}</title>
      {chosen || open ? (
        <rect
          x={b.x - (bench ? 7 : 5)}
          y={b.y - (bench ? 7 : 5)}
          width={b.w + (bench ? 14 : 10)}
          height={b.h + (bench ? 14 : 10)}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={chosen ? (bench ? 4 : 2) : 1.5}
          strokeDasharray={chosen ? undefined : "3 3"}
        />
      ) : null}
      <rect
        x={b.x}
        y={b.y}
        width={b.w}
        height={b.h}
        fill={port.landmark && !chosen ? "none" : fill}
        stroke={port.landmark ? "var(--edge)" : "var(--ink)"}
        strokeWidth={port.landmark ? (port.memory ? 0 : 1) : 1.25}
        pointerEvents="all"
      />
      {state === "planned" && !port.landmark && !chosen ? <circle cx={b.x + b.w / 2} cy={b.y + b.h / 2} r={2.4} fill="var(--ink)" /> : null}
      {port.landmark && !port.memory && (state === "done" || state === "planned") && !chosen ? (
        <rect
          x={b.x + 3}
          y={b.y + 3}
          width={Math.max(2, b.w - 6)}
          height={Math.max(2, b.h - 6)}
          fill={state === "done" ? "var(--rule)" : "none"}
          stroke="var(--rule)"
        />
      ) : null}
      {state === "wrong" ? <path d={`M${b.x + b.w} ${b.y - 8}l8 8-8 8-8-8z`} fill="var(--stop)" /> : null}
    </g>
  );
}
