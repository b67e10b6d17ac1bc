import { cx } from "../cx";

/** As much of a connector family as a picture of it needs. */
export interface PictureFamily {
  id: string;
  name: string;
  order: readonly (readonly (number | null)[])[];
  pins: readonly { pin: number; signal: string; wire?: string }[];
  blank?: number;
  keyedBy: string;
  source: string;
}

const STRIPE: Record<string, string> = {
  yellow: "#e8c21a",
  red: "#d0342c",
  orange: "#e07b1f",
  black: "#1d1d1d",
  purple: "#7a4fa3",
  green: "#2f8f4e",
  grey: "#8a8a8a",
  blue: "#2f62c0",
  white: "#ffffff",
};

/**
 * The block as looked at: "looking at the board's pins". Pin 1 has a corner triangle, the blank position is hatched and
 * says so, the pins of the chosen plug are filled with mark. Signals stand in a list below, wire colours as words.
 */
export function PinPicture({
  family: f,
  pins,
  signals,
  bench = false,
  onBoard = true,
  pinsOnly = false,
}: {
  family: PictureFamily;
  pins: readonly number[];
  signals?: ReadonlyMap<number, string>;
  bench?: boolean;
  /** False for a socket of another part: a drive, a hub, a supply. */
  onBoard?: boolean;
  /** Without words on how a plug sits. */
  pinsOnly?: boolean;
}) {
  const rows = f.order;
  const columns = Math.max(0, ...rows.map((r) => r.length));
  if (columns === 0)
    return (
      <p className={bench ? "text-bench" : "text-second"}>
        {f.name}. Kept right by: {f.keyedBy}.
      </p>
    );
  const pitch = Math.min(bench ? 56 : 28, Math.floor((bench ? 328 : 288) / columns));
  const w = columns * pitch;
  const h = rows.length * pitch;
  const numbers = pitch >= (bench ? 40 : 20);
  const corner = new Set([rows[0]?.[0], rows[0]?.at(-1), rows.at(-1)?.[0], rows.at(-1)?.at(-1)]);
  const name = (n: number) => signals?.get(n) ?? f.pins.find((p) => p.pin === n)?.signal ?? "";
  const wire = (n: number) => f.pins.find((p) => p.pin === n)?.wire;
  return (
    <figure className="flex flex-col gap-2">
      <figcaption className={bench ? "text-bench" : "text-second text-soft"}>Looking at the {onBoard ? "board's" : "socket's"} pins</figcaption>
      <svg
        width={w + 4}
        height={h + 4}
        viewBox={`-2 -2 ${w + 4} ${h + 4}`}
        role="img"
        aria-label={`${f.name}, ${pins.length > 0 ? `pins ${pins.join(" and ")} chosen` : "all pins"}${f.blank ? `, position ${f.blank} blank` : ""}`}
      >
        <defs>
          <pattern id={`hatch-${f.id}`} width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <path d="M0 0V6" stroke="var(--ink)" strokeWidth="1.500" />
          </pattern>
        </defs>
        <rect x="0" y="0" width={w} height={h} fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2" />
        {rows.flatMap((r, y) =>
          r.map((n, x) => {
            const blank = n === null || n === f.blank;
            const on = n !== null && pins.includes(n);
            const key = `${y}-${x}`;
            const cx = x * pitch;
            const cy = y * pitch;
            return (
              <g key={key}>
                <rect
                  x={cx + 2}
                  y={cy + 2}
                  width={pitch - 4}
                  height={pitch - 4}
                  fill={blank ? `url(#hatch-${f.id})` : on ? "var(--mark)" : "var(--raised)"}
                  stroke="var(--edge)"
                  strokeWidth="1"
                />
                {n === 1 ? <path d={`M${cx + 1} ${cy + 1}h${pitch * 0.32}l${-pitch * 0.32} ${pitch * 0.32}z`} fill="var(--ink)" /> : null}
                {!blank && (numbers || corner.has(n)) ? (
                  <text
                    x={cx + pitch / 2}
                    y={cy + pitch / 2 + (bench ? 8 : 4)}
                    textAnchor="middle"
                    className="mono"
                    fontSize={bench ? 24 : 12}
                    fill={on ? "var(--on-mark)" : "var(--ink)"}
                  >
                    {n}
                  </text>
                ) : null}
              </g>
            );
          }),
        )}
      </svg>
      {bench ? null : (
        <ul className="grid grid-cols-1 gap-x-3 text-second">
          {(pins.length > 0 ? [...pins] : f.pins.slice(0, 12).map((p) => p.pin)).map((n) => (
            <li key={n} className="flex items-center gap-2">
              <span className="mono w-6 text-right">{n}</span>
              {wire(n) ? (
                <span aria-hidden className="inline-block h-1.5 w-5 border border-ink" style={{ background: STRIPE[wire(n) ?? ""] }} />
              ) : null}
              <span>
                {name(n)}
                {wire(n) ? `, ${wire(n)} wire` : ""}
              </span>
            </li>
          ))}
          {pins.length === 0 && f.pins.length > 12 ? <li className="text-soft">and {f.pins.length - 12} more</li> : null}
        </ul>
      )}
      <p className={cx(bench ? "text-bench" : "text-second", pinsOnly && "hidden")}>
        {f.blank ? `Position ${f.blank} is blank. ` : ""}
        {f.id === "panel-block" ? "Text faces outward, away from the neighbouring row." : `Kept right by ${f.keyedBy}.`}
      </p>
      {bench ? null : <p className="text-label text-soft">{f.source}</p>}
    </figure>
  );
}
