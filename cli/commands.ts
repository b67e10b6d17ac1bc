import { readFileSync } from "node:fs";
import { airOf } from "../core/air";
import { asPlugged, type Graph, isDone, readBuildText, typeLookup } from "../core/assembly";
import { assumed, type PartType } from "../core/catalogue";
import { check, checkAll, checkParts, withTriedWays } from "../core/checks";
import { tiedBack } from "../core/claims";
import { diagnoseJson } from "../core/diagnose";
import { clearances, standoffs } from "../core/fit";
import { handoverJson } from "../core/handover";
import { orderList } from "../core/intake";
import { asExpected, headerLines, simulate } from "../core/machine";
import { couldStop } from "../core/matters";
import { orderJson, POSTURES, type Posture, undoJson } from "../core/order";
import { plan, waysIn } from "../core/plan";
import { byDraw, plugDrops, powerBudget } from "../core/power";
import { linesOf, readReport } from "../core/report";
import { routesJson } from "../core/routes";
import { paperDrawing, svgOf } from "../core/scene";
import { readReadings, soakOf } from "../core/soak";
import { wayWords } from "../core/wiring";
import { BadInput } from "./bad-input";
import { intake, typeJudged } from "./intake";
import { leadOf, placesJson, whyJson } from "./leads";
import { archive, labels, labelsAsked, verify } from "./papers";
import { readShelf } from "./shelf";

const USAGE = `Usage: npm run --silent imbra -- COMMAND FILE [LEAD, STEP, LOG or REPORT …] [--shelf FOLDER] [--deadline SECONDS] [--sheet SIDE] [--posture HOW]
  plan FILE         where every lead goes and why, what is tied back, what to order, what would let the rest in
  why FILE LEAD     why a lead (or the plug in a power socket) is where it is, the next best place and what it would cost
  places FILE LEAD  every place of a lead, with its cost in words and level by level
  check FILE        what is wrong with the connections in the file
  power-on FILE     what happens at power-on, from what is plugged
  fit FILE          every clearance with the millimetres left, standoffs, and what the parts list is warned of
  routes FILE       the way of every lead that is in a port: points on each side of the tray, length, what is folded where, ties, cut-outs
  draw FILE         the machine as an SVG file in millimetres; --sheet front (if not said) or behind
  order FILE        the steps in order, turns of the case, what contradicts itself, schools side by side; --posture standing, front-up or behind-up
  undo FILE STEP    what must come out before a step can be done again or was forgotten, what stays, what is made anew, minutes
  diagnose FILE     what is to blame for what was seen, what is cleared and by what, and what to do first: the least expected minutes
  handover FILE     whether the machine can leave, what is missing and where, what was sold beside what is in it, the bag
  archive FILE      the build as a ZIP file that is read without Imbra, on standard output
  verify ARCHIVE    what of an archive is not as it was made
  labels FILE       labels as PDF on standard output; --kind leads, bag, machine or box; --sheet such as a4-38x21 or flag-24x60
  power FILE        draw by moment, rail and plug, against the supply
  intake FILE       a mail, a table or a list of parts: line by line what it asks for, the build it makes, and what has to be asked
  soak FILE LOG     a log of readings judged: minutes, the highest that held, the lowest clock, whether it held
  report FILE REPORT  what a report file of the machine (lshw -json, sensors -j, smartctl --json, dmidecode) says of the first-boot sheet
  type FILE         a part type judged: what contradicts itself, and what of it is only assumed
FILE is a build file (docs/formats.md), what "plan" prints, or - for standard input; of intake the text itself, of type a part type. LEAD is an address (fan-1:lead) or a tag (FN-02), STEP an id as order prints it (board-in), REPORT what such a program wrote, LOG a table of readings as logging tools write it.
JSON on standard output, SVG from draw, PDF from labels, ZIP from archive. Exit 0: nothing says stop. Exit 1: a finding says stop, something mandatory stays free, or a fault is still to be found.
Exit 2: bad input, one sentence a fault on standard error.`;

const COMMANDS = [
  "plan",
  "why",
  "places",
  "check",
  "power-on",
  "fit",
  "routes",
  "draw",
  "order",
  "undo",
  "diagnose",
  "handover",
  "archive",
  "verify",
  "labels",
  "power",
  "intake",
  "type",
  "soak",
  "report",
];
/** Seconds for a whole plan unless said otherwise. */
const DEADLINE_S = 60;

function readInput(file: string, standardInput: () => string): string {
  try {
    return file === "-" ? standardInput() : readFileSync(file, "utf8");
  } catch {
    throw new BadInput([`${file}: cannot be read. Give the path of a build file, or - for standard input.`]);
  }
}

function shelfFrom(folder: string | undefined) {
  try {
    return readShelf(folder);
  } catch {
    throw new BadInput([`--shelf ${folder}: this folder holds no readable lists of part types.`]);
  }
}

function deadlineFrom(args: string[]): number {
  const at = args.indexOf("--deadline");
  if (at < 0) return DEADLINE_S;
  const [, text] = args.splice(at, 2);
  const seconds = Number(text);
  if (!(seconds > 0 && seconds <= 3600)) throw new BadInput([`--deadline ${text ?? ""}: give seconds, more than 0 and at most 3600.`]);
  return seconds;
}

function sheetFrom(args: string[]): "front" | "behind" | undefined {
  const at = args.indexOf("--sheet");
  if (at < 0) return undefined;
  const [, text] = args.splice(at, 2);
  if (text !== "front" && text !== "behind") throw new BadInput([`--sheet ${text ?? ""}: give front or behind.`]);
  return text;
}

function postureFrom(args: string[]): Posture | undefined {
  const at = args.indexOf("--posture");
  if (at < 0) return undefined;
  const [, text] = args.splice(at, 2);
  const found = POSTURES.find((p) => p === text);
  if (!found) throw new BadInput([`--posture ${text ?? ""}: give ${POSTURES.slice(0, -1).join(", ")} or ${POSTURES.at(-1)}.`]);
  return found;
}

/** A build file as it is; out of what `plan` prints, the build in it. */
function buildIn(text: string): string {
  try {
    const data: unknown = JSON.parse(text);
    if (data !== null && typeof data === "object" && "build" in data && !("format" in data)) return JSON.stringify(data.build);
  } catch {
    // The reader says in which line it is not JSON.
  }
  return text;
}

async function run(args: string[], standardInput: () => string): Promise<{ json: unknown; stop: boolean } | { text: string } | { bytes: Buffer }> {
  const asked = args[0] === "labels" ? labelsAsked(args) : undefined;
  const at = args.indexOf("--shelf");
  const folder = at >= 0 ? args.splice(at, 2)[1] : undefined;
  const deadlineS = deadlineFrom(args);
  const sheet = sheetFrom(args);
  const posture = postureFrom(args);
  const [command, file, lead, ...rest] = args;
  const asksLead = command === "why" || command === "places";
  const asksOne = asksLead || command === "undo" || command === "soak" || command === "report";
  const astray = (sheet && command !== "draw") || (posture && command !== "order");
  if (!command || !file || (rest.length > 0 && command !== "report") || asksOne !== (lead !== undefined) || !COMMANDS.includes(command) || astray)
    throw new BadInput([USAGE]);
  if (command === "verify") return verify(file);
  const shelf = shelfFrom(folder);
  if (command === "intake") return intake(readInput(file, standardInput), shelf, deadlineS);
  if (command === "type") return typeJudged(readInput(file, standardInput), shelf);
  const read = readBuildText(buildIn(readInput(file, standardInput)), shelf);
  if (!read.ok) throw new BadInput(read.faults);
  if (asked) return { bytes: await labels(read.graph, asked) };
  if (command === "archive") return { bytes: await archive(read.graph) };
  const types = typeLookup(read.build, shelf);
  if (command === "plan" || asksLead) {
    const made = await plan(read.build, types, { deadlineS });
    const again = readBuildText(JSON.stringify(made.build), shelf);
    if (!again.ok) throw new Error(`the plan does not read back: ${again.faults[0]}`);
    const { graph } = again;
    if (asksLead && lead !== undefined) {
      const node = leadOf(graph, lead);
      if (!node) throw new BadInput([`${lead}: this build has no such lead. Give an address such as fan-1:lead, or a tag such as FN-02.`]);
      if (node.lead.role === "cable-root")
        throw new BadInput([
          `${lead}: this end of the cable goes into the supply, into any outlet of its system. Ask about a plug at the other end.`,
        ]);
      const answer = command === "why" ? whyJson : placesJson;
      return { json: await answer(made, graph, node, types, deadlineS), stop: false };
    }
    const findings = check(graph, "plan");
    const ways = await waysIn(made, types, { deadlineS: Math.min(deadlineS, DEADLINE_S / 3) });
    const json = {
      ...made,
      tiedBack: tiedBack(graph),
      order: orderList(graph),
      // Values of its parts that nobody has confirmed.
      assumed: [...new Set(graph.build.parts.map((p) => p.type))].reduce((n, id) => n + assumedOf(types(id)), 0),
      ways: ways ? { ...ways, words: ways.needs.map((n) => wayWords(graph, types, n)) } : null,
      findings,
    };
    return { json, stop: findings.some((f) => f.severity === "stop") || made.free.some((f) => f.need === "mandatory") };
  }
  if (command === "draw") return { text: svgOf(paperDrawing(read.graph, sheet ?? "front", read.build.name)) };
  if (command === "order") {
    const json = orderJson(read.graph, posture);
    return { json, stop: json.conflicts.length > 0 };
  }
  if (command === "soak" && lead !== undefined) {
    const log = readReadings(readInput(lead, standardInput));
    if (typeof log === "string") throw new BadInput([`${lead}: ${log}`]);
    const soak = soakOf(log);
    return { json: { ...soak, unknown: log.unknown, faults: log.faults }, stop: soak.verdict !== "held" };
  }
  if (command === "report" && lead !== undefined) {
    const reports = [lead, ...rest].map((f) => {
      const r = readReport(readInput(f, standardInput));
      if (typeof r === "string") throw new BadInput([`${f}: ${r}`]);
      return r;
    });
    const lines = linesOf(read.graph, reports);
    return {
      json: { read: reports.flatMap((r) => r.read), lines, unknown: reports.flatMap((r) => r.unknown) },
      stop: lines.some((l) => l.state === "otherwise"),
    };
  }
  if (command === "undo" && lead !== undefined) {
    const json = undoJson(read.graph, lead);
    if (!json) throw new BadInput([`${lead}: this build has no such step. Give an id as the order prints it, such as board-in or mount:fan-1.`]);
    return { json, stop: false };
  }
  if (command === "diagnose") {
    const json = diagnoseJson(read.graph);
    return { json, stop: json.next !== null || json.notes.length > 0 };
  }
  if (command === "handover") {
    const json = handoverJson(read.graph, types);
    return { json, stop: !json.ready };
  }
  if (command === "routes") {
    const json = routesJson(read.graph);
    return { json, stop: false };
  }
  if (command === "check") {
    const findings = [...checkAll(read.graph), ...couldStop(read.graph)];
    return { json: { findings }, stop: findings.some((f) => f.severity === "stop") };
  }
  if (command === "fit") {
    const findings = [...withTriedWays(read.graph, checkParts(read.graph)), ...couldStop(read.graph)];
    return {
      json: {
        clearances: clearances(read.graph),
        standoffs: standoffs(read.graph) ?? null,
        air: airJson(read.graph),
        orderList: orderList(read.graph),
        findings,
      },
      stop: findings.some((f) => f.severity === "stop"),
    };
  }
  if (command === "power") {
    const b = powerBudget(read.graph);
    const findings = withTriedWays(
      read.graph,
      checkParts(read.graph).filter((f) => f.rule.startsWith("supply") || f.rule === "wire-drop"),
    );
    return {
      json: {
        ...b,
        supply: b.supply ? { id: b.supply.id, type: b.supply.type.id, name: b.supply.type.name } : null,
        parts: byDraw(b).map((d) => ({ ...d, part: d.part.id })),
        drops: plugDrops(read.graph),
        findings,
      },
      stop: findings.some((f) => f.severity === "stop"),
    };
  }
  const { faults: left, ...seen } = simulate(read.graph);
  const plugged = read.build.connections.filter(isDone).length;
  const findings = check(asPlugged(read.graph), "plugged");
  const readings = (read.build.readings ?? []).flatMap((r) => {
    const l = [...seen.lines, ...headerLines(read.graph)].find((x) => x.id === r.line);
    return l ? [{ line: r.line, expected: l.expected, seen: r.value, state: asExpected(l, r.value) ? "as expected" : "otherwise" }] : [];
  });
  return {
    json: { plugged, ...seen, ...(left.length > 0 ? { left } : {}), ...(readings.length > 0 ? { readings } : {}), findings },
    stop:
      readings.some((r) => r.state === "otherwise") ||
      seen.damage.length > 0 ||
      seen.stopsAt !== undefined ||
      findings.some((f) => f.severity === "stop"),
  };
}

const assumedOf = (t: PartType | undefined): number => (t ? assumed(t).length : 0);

function airJson(graph: Graph) {
  const a = airOf(graph);
  const ids = (parts: readonly { id: string }[]) => parts.map((p) => p.id);
  return {
    ...a,
    fans: a.fans.map((f) => ({ ...f, part: f.part.id })),
    ...(a.supply ? { supply: { ...a.supply, part: a.supply.part.id } } : {}),
    spare: ids(a.spare),
    unknown: ids(a.unknown),
    silent: ids(a.silent),
  };
}

/** How a command ended, and what it printed. */
export interface Ended {
  status: 0 | 1 | 2;
  stdout: string;
  /** Where it prints a file that is no text. */
  bytes?: Buffer;
  stderr: string;
}

/** Carries out what the words of a command line ask for; `standardInput` is read where the file is called -. */
export async function imbra(words: readonly string[], standardInput: () => string): Promise<Ended> {
  try {
    const out = await run([...words], standardInput);
    if ("bytes" in out) return { status: 0, stdout: "", bytes: out.bytes, stderr: "" };
    return { status: "stop" in out && out.stop ? 1 : 0, stdout: "text" in out ? out.text : `${JSON.stringify(out.json, null, 2)}\n`, stderr: "" };
  } catch (e) {
    const faults = e instanceof BadInput ? e.faults : [`Imbra could not finish: ${e instanceof Error ? e.message : String(e)}`];
    return { status: 2, stdout: "", stderr: `${faults.join("\n")}\n` };
  }
}
