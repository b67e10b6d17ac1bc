import { readFileSync } from "node:fs";
import { opened, packed } from "../archive";
import type { Graph } from "../core/assembly";
import { handoverJson, LABEL_KINDS, type LabelKind, labelsOf } from "../core/handover";
import { paperDrawing, svgOf } from "../core/scene";
import { connectionsCsv, sheetOf } from "../core/sheet";
import { LABEL_SHEETS, labelsPdf, sheetNamed } from "../paper/labels";
import { BadInput } from "./bad-input";

/** What `--kind` and `--sheet` of labels say. */
export interface LabelsAsked {
  kind: LabelKind;
  sheet: string;
}

const taken = (args: string[], flag: string): string | undefined => {
  const at = args.indexOf(flag);
  return at < 0 ? undefined : args.splice(at, 2)[1];
};

/** Takes the words that labels are asked for out of a command line. */
export function labelsAsked(args: string[]): LabelsAsked {
  const [kind, sheet] = [taken(args, "--kind") ?? "", taken(args, "--sheet") ?? ""];
  const is = LABEL_KINDS.find((k) => k === kind);
  if (!is) throw new BadInput([`--kind ${kind}: give ${LABEL_KINDS.join(", ")}.`]);
  if (!sheetNamed(sheet)) throw new BadInput([`--sheet ${sheet}: give ${LABEL_SHEETS.map((s) => s.name).join(", ")}.`]);
  return { kind: is, sheet };
}

/** Labels of a build as PDF. */
export async function labels({ build, ...graph }: Graph, { kind, sheet }: LabelsAsked): Promise<Buffer> {
  const [number = build.name, ...title] = build.name.split(" ");
  const list = labelsOf({ build, ...graph }, kind, { number, title: title.join(" "), client: build.client ?? "" });
  const on = sheetNamed(sheet);
  if (!on || list.length === 0) throw new BadInput([`${build.name}: no ${kind} of it are to be labelled. Plan it first.`]);
  return labelsPdf(`${build.name}, ${kind}`, list, on);
}

/** The epoch of files that know no date: the same build is the same archive. */
const NO_DATE = "1990-01-01T00:00:00.000Z";

/** A build as an archive that is read without Imbra. */
export function archive(graph: Graph): Promise<Buffer> {
  const { build } = graph;
  const text = (name: string, what: string) => ({ name, bytes: Buffer.from(what) });
  const [number = build.name, ...title] = build.name.split(" ");
  return packed({ number, title: title.join(" "), client: build.client ?? "", made: NO_DATE }, [
    text("build.json", `${JSON.stringify(build, null, 1)}\n`),
    text("leads.csv", connectionsCsv(sheetOf(graph))),
    text("front.svg", svgOf(paperDrawing(graph, "front", build.name))),
    text("behind.svg", svgOf(paperDrawing(graph, "behind", build.name))),
    text("handover.json", `${JSON.stringify(handoverJson(graph), null, 1)}\n`),
  ]);
}

/** What of an archive is not as it was made. */
export async function verify(file: string): Promise<{ json: unknown; stop: boolean }> {
  let bytes: Buffer;
  try {
    bytes = readFileSync(file);
  } catch {
    throw new BadInput([`${file}: cannot be read. Give the path of an archive.`]);
  }
  const read = await opened(bytes);
  if (!read.ok) throw new BadInput([`${file}: ${read.sentence}`]);
  const { manifest, changed } = read;
  const { number, title, made, files } = manifest;
  return { json: { number, title, made, files: files.length, whole: changed.length === 0, changed }, stop: changed.length > 0 };
}
