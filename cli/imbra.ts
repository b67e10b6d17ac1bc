import { readFileSync } from "node:fs";
import { airOf } from "../core/air";
import { asPlugged, type Graph, isDone, readBuildText, typeLookup } from "../core/assembly";
import { check, checkAll, checkParts } from "../core/checks";
import { clearances, standoffs } from "../core/fit";
import { orderList } from "../core/intake";
import { powerOn } from "../core/machine";
import { plan } from "../core/plan";
import { byDraw, plugDrops, powerBudget } from "../core/power";
import { readShelf } from "./shelf";

const USAGE = `Usage: npm run --silent imbra -- COMMAND FILE [--shelf FOLDER]
  plan FILE      where every lead goes, with the reason for each
  check FILE     what is wrong with the connections in the file
  power-on FILE  what happens at power-on, from what is plugged
  fit FILE       every clearance with the millimetres left, standoffs, and what the parts list is warned of
  power FILE     draw by moment, rail and plug, against the supply
FILE is a build file (docs/formats.md), or - for standard input. JSON on standard output.
Exit 0: nothing says stop. Exit 1: a finding says stop. Exit 2: bad input, one sentence a fault on standard error.`;

class BadInput extends Error {
  constructor(readonly faults: string[]) {
    super(faults[0]);
  }
}

function readInput(file: string): string {
  try {
    return readFileSync(file === "-" ? 0 : file, "utf8");
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

async function run(args: string[]): Promise<{ json: unknown; stop: boolean }> {
  const at = args.indexOf("--shelf");
  const folder = at >= 0 ? args.splice(at, 2)[1] : undefined;
  const [command, file, ...rest] = args;
  if (!command || !file || rest.length > 0 || !["plan", "check", "power-on", "fit", "power"].includes(command)) throw new BadInput([USAGE]);
  const shelf = shelfFrom(folder);
  const read = readBuildText(readInput(file), shelf);
  if (!read.ok) throw new BadInput(read.faults);
  const types = typeLookup(read.build, shelf);
  if (command === "plan") {
    const made = await plan(read.build, types);
    const again = readBuildText(JSON.stringify(made.build), shelf);
    if (!again.ok) throw new Error(`the plan does not read back: ${again.faults[0]}`);
    const findings = check(again.graph, "plan");
    return { json: { ...made, findings }, stop: findings.some((f) => f.severity === "stop") };
  }
  if (command === "check") {
    const findings = checkAll(read.graph);
    return { json: { findings }, stop: findings.some((f) => f.severity === "stop") };
  }
  if (command === "fit") {
    const findings = checkParts(read.graph);
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
    const findings = checkParts(read.graph).filter((f) => f.rule.startsWith("supply") || f.rule === "wire-drop");
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
  const seen = powerOn(read.graph);
  const plugged = read.build.connections.filter(isDone).length;
  const findings = check(asPlugged(read.graph), "plugged");
  return {
    json: { plugged, ...seen, findings },
    stop: seen.damage.length > 0 || seen.stopsAt !== undefined || findings.some((f) => f.severity === "stop"),
  };
}

function airJson(graph: Graph) {
  const a = airOf(graph);
  return { ...a, fans: a.fans.map((f) => ({ ...f, part: f.part.id })), spare: a.spare.map((p) => p.id) };
}

run(process.argv.slice(2)).then(
  ({ json, stop }) => {
    process.exitCode = stop ? 1 : 0;
    process.stdout.write(`${JSON.stringify(json, null, 2)}\n`);
  },
  (e: unknown) => {
    process.exitCode = 2;
    const faults = e instanceof BadInput ? e.faults : [`Imbra could not finish: ${e instanceof Error ? e.message : String(e)}`];
    process.stderr.write(`${faults.join("\n")}\n`);
  },
);
