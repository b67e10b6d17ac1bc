import { z } from "zod";
import { linesOf, readReport } from "../../core/report";
import { no, type Result, yes } from "../kernel/result";
import { JobNumber, line, text } from "../kernel/text";
import { jobAction } from "../unit/action";
import type { JobUnit } from "../unit/unit";
import { see } from "./observe";

/** What a report file filled in. */
export interface Filled {
  from: string;
  lines: number;
  otherwise: string[];
  read: { id: string; value: string }[];
  unknown: string[];
}

const MOST_FILE_CHARS = 4_000_000;

/** A report of the machine fills in the lines of the sheet that it speaks of; the rest of the sheet stays as it is. */
export async function fillIn(unit: JobUnit, r: { name: string; text: string; simulated: boolean }): Promise<Result<Filled>> {
  const report = readReport(r.text);
  if (typeof report === "string") return no(`${r.name}: ${report}`);
  const lines = linesOf((await unit.build()).graph, [report]);
  if (report.read.length === 0) return no(`${r.name}: nothing that Imbra knows is in it. Nothing was changed.`);
  if (lines.length > 0) {
    const kept = await see(unit, { lines: lines.map((l) => ({ line: l.id, value: l.seen })), unseenOnly: false }, r.simulated);
    if (!kept.ok) return kept;
  }
  const read = report.read.slice(0, 60).map((x) => ({ id: x.id, value: `${x.value}${x.unit ? ` ${x.unit}` : ""}` }));
  unit.emit("report", { name: r.name, from: report.from, lines: lines.length, read: read.map((x) => `${x.id} ${x.value}`) });
  return yes({
    from: report.from,
    lines: lines.length,
    otherwise: lines.filter((l) => l.state === "otherwise").map((l) => `${l.what}: ${l.seen}, expected ${l.expected}`),
    read,
    unknown: report.unknown,
  });
}

export const takeReport = jobAction({
  name: "boot.report",
  permission: "record",
  input: z.object({ number: JobNumber, name: line(200), text: text(MOST_FILE_CHARS) }),
  run: (unit, r) => fillIn(unit, { ...r, simulated: false }),
});
