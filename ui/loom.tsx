export type LoomName = "power" | "front-panel" | "fans" | "lighting" | "data" | "seat";

/** Colour and line pattern of each loom. The pattern alone tells them apart. */
export const LOOM_LINE: Record<LoomName, { colour: string; width: number; dash?: string; round?: true; rail?: number }> = {
  power: { colour: "var(--loom-power)", width: 5 },
  "front-panel": { colour: "var(--loom-front-panel)", width: 3.5, dash: "0 6.5", round: true },
  fans: { colour: "var(--loom-fans)", width: 3, dash: "13 5" },
  lighting: { colour: "var(--loom-lighting)", width: 3, dash: "11 4 2 4" },
  data: { colour: "var(--loom-data)", width: 7, rail: 2.5 },
  seat: { colour: "var(--loom-seat)", width: 1.5 },
};

/** A lead as a cord: a casing in the sheet's colour, then the loom's own line. */
export function LoomPath({ d, loom, scale = 1, dim = false }: { d: string; loom: LoomName; scale?: number; dim?: boolean }) {
  const l = LOOM_LINE[loom];
  const colour = dim ? `color-mix(in srgb, ${l.colour} 35%, var(--sheet))` : l.colour;
  return (
    <g fill="none" strokeLinejoin="round" vectorEffect="non-scaling-stroke">
      <path d={d} stroke="var(--sheet)" strokeWidth={l.width * scale + 3} />
      <path
        d={d}
        stroke={colour}
        strokeWidth={l.width * scale}
        strokeDasharray={l.dash
          ?.split(" ")
          .map((n) => Number(n) * scale)
          .join(" ")}
        strokeLinecap={l.round ? "round" : "butt"}
      />
      {l.rail ? <path d={d} stroke="var(--sheet)" strokeWidth={l.rail * scale} /> : null}
    </g>
  );
}

/** A short piece of the line, for lists and legends. */
export function LoomSwatch({ loom, width = 36 }: { loom: LoomName; width?: number }) {
  return (
    <svg width={width} height={12} aria-hidden className="shrink-0">
      <LoomPath d={`M2 6H${width - 2}`} loom={loom} />
    </svg>
  );
}
