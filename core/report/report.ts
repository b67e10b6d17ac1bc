import { type Graph, partsOfKind } from "../assembly";
import { asExpected, headerLines, powerOn } from "../machine";

/** One thing that a report file says. */
export interface Read {
  /** What it is: `memory-size`, `memory-speed`, `drive:serial`, `temperature:name`, `fan:name`, `firmware`, `cpu`, `card`. */
  id: string;
  value: string | number;
  unit?: "GB" | "MT/s" | "°C" | "rpm" | "h";
}

/** A drive as a report names it. */
interface Drive {
  model: string;
  serial: string;
  sizeGb?: number | undefined;
}

export interface Reported {
  /** Which program wrote it. */
  from: "lshw" | "sensors" | "smartctl" | "dmidecode";
  read: Read[];
  drives: Drive[];
  /** It lists all drives of the machine, not one. */
  allDrives: boolean;
  /** Kept as they are, not understood. */
  unknown: string[];
}

export interface ReportLine {
  id: string;
  what: string;
  expected: string;
  seen: string;
  state: "as expected" | "otherwise";
}

export const MOST_REPORT_CHARS = 20_000_000;
/** Depth and number of nodes of a tree that are looked at: machines have some hundred. */
const [MOST_DEPTH, MOST_NODES] = [24, 5000];
const MOST_UNKNOWN = 40;

type Json = { [k: string]: unknown };
const isObject = (v: unknown): v is Json => typeof v === "object" && v !== null && !Array.isArray(v);
const str = (v: unknown): string => (typeof v === "string" ? v.trim() : "");
const num = (v: unknown): number | undefined => (typeof v === "number" && Number.isFinite(v) ? v : undefined);
const gb = (bytes: number) => Math.round(bytes / 2 ** 30);
/** Makers of drives count by tens (IEC 80000-13 keeps G for 10^9). */
const gbOfDrive = (bytes: number) => Math.round(bytes / 1e9);

/** A report file of a machine, in the format of the program that wrote it; a sentence where it is none, or is cut off. */
export function readReport(text: string): Reported | string {
  if (text.length > MOST_REPORT_CHARS) return `It is larger than ${MOST_REPORT_CHARS / 1_000_000} MB: no report of a machine is. Nothing was read.`;
  const t = text.trim();
  if (t === "") return "It is empty. Nothing was read.";
  if (!t.startsWith("{") && !t.startsWith("[")) return dmi(t);
  let data: unknown;
  try {
    data = JSON.parse(t);
  } catch {
    return "It is cut off or no JSON: write it again to its end. Nothing was read.";
  }
  const root = Array.isArray(data) && data.length === 1 ? data[0] : data;
  if (isObject(root) && isObject(root.smartctl)) return smart(root);
  if (isObject(root) && (typeof root.class === "string" || Array.isArray(root.children))) return hardware([root]);
  if (Array.isArray(data) && data.every((x) => isObject(x) && typeof x.class === "string")) return hardware(data as Json[]);
  if (isObject(root) && Object.values(root).every((c) => isObject(c))) return sensors(root);
  return "It is none of the reports that Imbra reads: lshw -json, sensors -j, smartctl --json, dmidecode. Nothing was read.";
}

function hardware(roots: Json[]): Reported {
  const out: Reported = { from: "lshw", read: [], drives: [], allDrives: true, unknown: [] };
  let sizeB = 0;
  const speeds: number[] = [];
  let seen = 0;
  const walk = (n: Json, depth: number) => {
    if (++seen > MOST_NODES || depth > MOST_DEPTH) return;
    const kind = str(n.class);
    const id = str(n.id);
    const size = num(n.size);
    if (kind === "memory" && /^bank/.test(id)) {
      if (size) sizeB += size;
      const hz = num(n.clock);
      // The clock is told in Hz; memory moves data twice a clock, and this program tells the rate as if it were the clock.
      if (size && hz) speeds.push(Math.round(hz / 1e6));
    } else if ((kind === "disk" || kind === "storage") && size && size > 1e9 && (str(n.serial) || str(n.product)) && !/cd|dvd/i.test(id))
      out.drives.push({ model: str(n.product), serial: str(n.serial), sizeGb: gbOfDrive(size) });
    else if (kind === "processor" && str(n.product)) out.read.push({ id: "cpu", value: str(n.product) });
    else if (kind === "display" && str(n.product)) out.read.push({ id: "card", value: str(n.product) });
    else if (kind === "memory" && id === "firmware" && str(n.version)) out.read.push({ id: "firmware", value: str(n.version) });
    else if (
      kind &&
      !["system", "bus", "bridge", "memory", "network", "generic", "volume", "power", "multimedia", "input", "communication"].includes(kind)
    )
      note(out, `${kind} ${id}`);
    for (const c of Array.isArray(n.children) ? n.children : []) if (isObject(c)) walk(c, depth + 1);
  };
  for (const r of roots) walk(r, 0);
  if (sizeB > 0) out.read.push({ id: "memory-size", value: gb(sizeB), unit: "GB" });
  if (speeds.length > 0) out.read.push({ id: "memory-speed", value: Math.min(...speeds), unit: "MT/s" });
  for (const d of out.drives) out.read.push({ id: `drive:${d.serial || d.model}`, value: `${d.model}${d.sizeGb ? `, ${d.sizeGb} GB` : ""}` });
  return out;
}

function sensors(root: Json): Reported {
  const out: Reported = { from: "sensors", read: [], drives: [], allDrives: false, unknown: [] };
  for (const [chip, features] of Object.entries(root)) {
    for (const [name, values] of Object.entries(features as Json)) {
      if (!isObject(values)) continue;
      const input = Object.entries(values).find(([k]) => k.endsWith("_input"));
      const v = num(input?.[1]);
      if (!input || v === undefined) note(out, `${chip} ${name}`);
      else if (input[0].startsWith("temp")) {
        // Sensors that hang nowhere read nonsense.
        if (v > -20 && v < 130) out.read.push({ id: `temperature:${name}`, value: Math.round(v * 10) / 10, unit: "°C" });
        else note(out, `${chip} ${name} (${v})`);
      } else if (input[0].startsWith("fan")) {
        if (v >= 0 && v < 20_000) out.read.push({ id: `fan:${name}`, value: Math.round(v), unit: "rpm" });
        else note(out, `${chip} ${name} (${v})`);
      } else note(out, `${chip} ${name}`);
    }
  }
  return out;
}

function smart(root: Json): Reported {
  const [model, serial] = [str(root.model_name), str(root.serial_number)];
  const size = isObject(root.user_capacity) ? num(root.user_capacity.bytes) : undefined;
  const out: Reported = { from: "smartctl", read: [], drives: [], allDrives: false, unknown: [] };
  if (model || serial) out.drives.push({ model, serial, sizeGb: size === undefined ? undefined : gbOfDrive(size) });
  const name = serial || model || "drive";
  if (model) out.read.push({ id: `drive:${name}`, value: `${model}${size ? `, ${gbOfDrive(size)} GB` : ""}` });
  const c = isObject(root.temperature) ? num(root.temperature.current) : undefined;
  if (c !== undefined) out.read.push({ id: `temperature:${name}`, value: c, unit: "°C" });
  const hours = isObject(root.power_on_time) ? num(root.power_on_time.hours) : undefined;
  if (hours !== undefined) out.read.push({ id: `hours:${name}`, value: hours, unit: "h" });
  const passed = isObject(root.smart_status) ? root.smart_status.passed : undefined;
  if (typeof passed === "boolean") out.read.push({ id: `health:${name}`, value: passed ? "passed" : "failing" });
  return out;
}

/** The text of dmidecode: blocks by handle, fields by a tab (DMTF DSP0134 names them). */
function dmi(text: string): Reported | string {
  if (!/^Handle 0x|^# dmidecode|SMBIOS/m.test(text))
    return "It is none of the reports that Imbra reads: lshw -json, sensors -j, smartctl --json, dmidecode. Nothing was read.";
  const out: Reported = { from: "dmidecode", read: [], drives: [], allDrives: false, unknown: [] };
  let sizeGb = 0;
  const speeds: number[] = [];
  for (const block of text.split(/^Handle /m).slice(1, MOST_NODES)) {
    const title = block.split("\n")[1]?.trim() ?? "";
    const of = (name: string) => new RegExp(`^\\t${name}:[ \\t]*(.+)$`, "m").exec(block)?.[1]?.trim() ?? "";
    if (title === "Memory Device") {
      const size = /^(\d+) ?([GM])i?B/.exec(of("Size"));
      if (!size) continue;
      sizeGb += size[2] === "G" ? Number(size[1]) : Number(size[1]) / 1024;
      const speed = /^(\d+) ?(?:MT\/s|MHz)/.exec(of("Configured (?:Memory|Clock) Speed") || of("Speed"));
      if (speed) speeds.push(Number(speed[1]));
    } else if (title === "BIOS Information" && of("Version")) out.read.push({ id: "firmware", value: of("Version") });
    else if (title === "Processor Information" && of("Version")) out.read.push({ id: "cpu", value: of("Version") });
  }
  if (sizeGb > 0) out.read.push({ id: "memory-size", value: Math.round(sizeGb), unit: "GB" });
  if (speeds.length > 0) out.read.push({ id: "memory-speed", value: Math.min(...speeds), unit: "MT/s" });
  return out;
}

function note(out: Reported, what: string): void {
  if (out.unknown.length < MOST_UNKNOWN && !out.unknown.includes(what)) out.unknown.push(what.slice(0, 120));
}

/** What reports say of the lines of the first-boot sheet. What they do not speak of is left out, never guessed. */
export function linesOf(graph: Graph, reports: readonly Reported[]): ReportLine[] {
  const sheet = [...powerOn(graph, undefined, false).lines, ...headerLines(graph)];
  const out: ReportLine[] = [];
  const say = (id: string, seen: string | number) => {
    const line = sheet.find((l) => l.id === id);
    if (line && !out.some((o) => o.id === id))
      out.push({
        id,
        what: line.what,
        expected: line.expected,
        seen: String(seen),
        state: asExpected(line, String(seen)) ? "as expected" : "otherwise",
      });
  };
  const all = reports.flatMap((r) => r.read);
  for (const r of all) {
    if (r.id === "memory-size" || r.id === "memory-speed") say(r.id, r.value);
    // A header is known by its own name only: which fan of a chip it is, nobody knows.
    if (r.id.startsWith("fan:")) {
      const port = [...graph.ports.values()].find((p) => p.part.type.kind === "board" && p.port.label.toLowerCase() === r.id.slice(4).toLowerCase());
      if (port) say(`reads:${port.address}`, r.value);
    }
  }
  const drives = reports.flatMap((r) => r.drives);
  const listed = matched(graph, drives);
  const complete = reports.some((r) => r.allDrives);
  for (const d of partsOfKind(graph, "drive")) if (listed.has(d.id) || complete) say(`drive:${d.id}`, listed.has(d.id) ? "listed" : "missing");
  return out;
}

/** Which drives of the build the reports name: by serial first, then by size, each named one once. */
function matched(graph: Graph, drives: readonly Drive[]): ReadonlySet<string> {
  const out = new Set<string>();
  const left = [...drives];
  const take = (fits: (d: Drive, id: string) => boolean) => {
    for (const p of partsOfKind(graph, "drive")) {
      if (out.has(p.id)) continue;
      const at = left.findIndex((d) => fits(d, p.id));
      if (at < 0) continue;
      left.splice(at, 1);
      out.add(p.id);
    }
  };
  take((d, id) => d.serial !== "" && d.serial.toLowerCase() === graph.parts.get(id)?.part.serial?.toLowerCase());
  take((d, id) => {
    const size = graph.parts.get(id)?.type.ratings.sizeGb;
    return d.sizeGb !== undefined && size !== undefined && Math.abs(d.sizeGb - size) <= 0.08 * size;
  });
  // Without sizes in the entries only the number is left.
  take((_, id) => graph.parts.get(id)?.type.ratings.sizeGb === undefined);
  return out;
}
