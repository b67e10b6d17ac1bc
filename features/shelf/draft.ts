import { parseWith } from "../../core/assembly";
import { contradictions, PartType, type PartType as Type } from "../../core/catalogue";

export type Json = null | boolean | number | string | Json[] | { [k: string]: Json };
export type Draft = { [k: string]: Json };

export const draftOf = (t: Type): Draft => JSON.parse(JSON.stringify(t)) as Draft;

/** A copy with one value set, or taken away with `undefined`; parts of the path that are missing are made. */
export function put(value: Json | undefined, path: readonly (string | number)[], to: Json | undefined): Json {
  const [head, ...rest] = path;
  if (head === undefined) return to ?? null;
  const copy = Array.isArray(value) ? [...value] : { ...((value ?? {}) as Record<string, Json>) };
  const at = copy as Record<string | number, Json>;
  if (rest.length === 0 && to === undefined) {
    if (Array.isArray(copy)) copy.splice(Number(head), 1);
    else delete at[head];
  } else at[head] = put(at[head], rest, to);
  return copy as Json;
}

export const get = (value: Json | undefined, path: readonly (string | number)[]): Json | undefined =>
  path.reduce<Json | undefined>((v, k) => (v !== null && typeof v === "object" ? (v as Record<string | number, Json>)[k] : undefined), value);

export interface Judged {
  type?: Type;
  faults: string[];
  /** What it says against itself: no reason not to save it. */
  odd: string[];
}

/** The draft against the schema, in sentences. */
export function judgeDraft(draft: Draft): Judged {
  const r = parseWith(PartType, draft);
  return r.ok ? { type: r.value, faults: [], odd: contradictions(r.value) } : { faults: r.faults, odd: [] };
}

export interface Field {
  path: string[];
  word: string;
  unit?: string;
}

const BODY = (id: string, word: string): Field => ({ path: ["body", id], word, unit: "mm" });
const R = (id: string, word: string, unit?: string): Field => ({ path: ["ratings", id], word, ...(unit ? { unit } : {}) });

const DRAW = [R("peakW", "Peak draw", "W"), R("idleW", "Idle draw", "W")];

/** The numbers that matter for each kind. Everything else is in the JSON. */
export const FIELDS: Partial<Record<Type["kind"], Field[]>> = {
  board: [
    BODY("widthMm", "Width"),
    BODY("heightMm", "Height"),
    ...DRAW,
    R("limitMts", "Memory limit", "MT/s"),
    R("limitMtsFour", "with four modules", "MT/s"),
    R("firmware", "Firmware delivered"),
  ],
  cpu: [...DRAW, R("heatW", "Heat", "W"), R("limitMts", "Memory limit", "MT/s")],
  cooler: [BODY("heightMm", "Height"), BODY("underMm", "Room for memory under it"), R("cooledW", "Carries", "W"), ...DRAW],
  memory: [BODY("heightMm", "Height"), R("sizeGb", "Size", "GB"), R("profileMts", "Profile", "MT/s"), R("defaultMts", "Default", "MT/s"), ...DRAW],
  drive: [R("sizeGb", "Size", "GB"), R("readMBs", "Reads at most", "MB/s"), ...DRAW, R("startW", "Draw spinning up", "W")],
  card: [BODY("widthMm", "Length"), BODY("depthMm", "Height over the board"), { path: ["body", "slots"], word: "Slots" }, ...DRAW],
  supply: [R("powerW", "Rated", "W"), BODY("depthMm", "Length"), BODY("heightMm", "Height")],
  case: [
    BODY("widthMm", "Depth, rear to front"),
    BODY("heightMm", "Height"),
    BODY("behindTrayMm", "Behind the tray"),
    BODY("maxCardMm", "Longest card"),
    BODY("maxCoolerMm", "Tallest cooler"),
    BODY("maxSupplyMm", "Longest supply, cage out"),
    BODY("maxSupplyWithCageMm", "Longest supply, cage in"),
    { path: ["body", "slots"], word: "Slot covers" },
  ],
  fan: [
    BODY("widthMm", "Size"),
    BODY("depthMm", "Thickness"),
    R("rpm", "Speed", "rpm"),
    R("flowM3h", "Flow", "m³/h"),
    R("pressureMm", "Pressure", "mm of water"),
    R("noiseDb", "Noise", "dB(A)"),
    R("peakW", "Peak draw", "W"),
  ],
};
