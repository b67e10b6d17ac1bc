import { type Graph, naturally } from "../assembly";
import { bagOf } from "./bag";
import { hasGlass } from "./packing";

export const LABEL_KINDS = ["leads", "bag", "machine", "box"] as const;
export type LabelKind = (typeof LABEL_KINDS)[number];

/** What stands on one label, and what a scan of it says. */
export interface LabelWords {
  big: string;
  lines: string[];
  code?: string;
}

/** What a scan of a label says: the job, and what of it. An address of the shop goes before it, where phones can reach it. */
export const codeOf = (number: string, what = "", address = ""): string =>
  address
    ? `${address.replace(/\/+$/, "")}/job/${encodeURIComponent(number)}${what ? `?scan=${encodeURIComponent(what)}` : ""}`
    : [number, what].filter(Boolean).join(" ");

/** Labels of one kind, for a machine as it is planned or plugged. */
export function labelsOf(
  graph: Graph,
  kind: LabelKind,
  job: { number: string; title: string; client: string; words?: string; shop?: string; address?: string },
): LabelWords[] {
  const code = (what = "") => codeOf(job.number, what, job.address);
  switch (kind) {
    case "leads":
      return graph.connections
        .flatMap((c) => {
          const [l, p] = [graph.leads.get(c.lead), graph.ports.get(c.port)];
          return l && p && l.loom !== "seat"
            ? [
                {
                  big: l.tag,
                  lines: [`to ${p.part.type.kind === "board" ? p.port.label : `${p.port.label}, ${p.part.part.label ?? p.part.type.name}`}`, l.name],
                  code: code(l.tag),
                },
              ]
            : [];
        })
        .sort((a, b) => naturally(a.big, b.big));
    case "bag":
      return [
        {
          big: job.number,
          lines: ["In the bag", ...bagOf(graph).map((b) => `${b.count} × ${b.what}${b.onlyFor ? `, only for ${b.onlyFor}` : ""}`)],
          code: code("bag"),
        },
      ];
    case "machine":
      return [{ big: job.number, lines: [job.title, job.client, job.shop ?? "", job.words ?? ""].filter(Boolean), code: code() }];
    case "box":
      return [
        { big: "This side up", lines: [job.number, job.client] },
        ...(hasGlass(graph) ? [{ big: "Glass", lines: ["Do not lean anything against it.", job.number] }] : []),
        { big: "Foam inside", lines: ["Take the foam out before you switch it on.", job.number] },
      ];
  }
}
