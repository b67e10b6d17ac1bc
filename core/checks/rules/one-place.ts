import type { Graph, PartNode } from "../../assembly";
import { clearances, radiatorSeats } from "../../fit";
import { type Body, type Meeting, meetings, STANDING } from "../../space";
import { changed, freeMounts, PARTS_ONLY, partsFinding, type Rule, type Try } from "../rule";

const mm = (n: number) => `${Math.max(1, Math.round(n))} mm`;
const fansOf = (graph: Graph) => new Map(radiatorSeats(graph).flatMap((s) => s.fans.map((f) => [f.id, s.cooler.id] as const)));
const meetingsOf = (graph: Graph) => meetings(graph, fansOf(graph));

/** The part to move first: a fan before a drive, a drive before what else there is. */
const EASY: readonly Body["kind"][] = ["fan", "drive", "hub", "radiator", "card", "pump", "cooler", "supply", "cage", "cover"];
const easier = ({ a, b }: Meeting): [Body, Body] => (EASY.indexOf(a.kind) <= EASY.indexOf(b.kind) ? [a, b] : [b, a]);

/** Free places that take the one, each tried. */
const elsewhere = (graph: Graph, part: PartNode): Try[] =>
  freeMounts(graph, part)
    .slice(0, 4)
    .map((m) => ({
      what: `At the ${m.label}`,
      change: (build) => changed(build, part.id, (p) => ({ ...p, mount: m.id })),
      leadsTo: (after) =>
        meetingsOf(after).some((x) => [x.a.part?.id, x.b.part?.id].includes(part.id)) ? "it meets something there, too" : "it meets nothing",
    }));

/** Two bodies never share a place, whatever nobody thought of. Where a clearance already says it of the two, that says it better. */
export const onePlace: Rule = {
  id: "one-place",
  title: "No two things stand in one place",
  protects: "a part that does not go in",
  on: PARTS_ONLY,
  reads: STANDING,
  run: ({ graph }) => {
    const said = clearances(graph).filter((c) => c.verdict === "not");
    return meetingsOf(graph).flatMap((m) => {
      const [one, other] = easier(m);
      const parts = [one, other].flatMap((b) => b.part?.id ?? []);
      if (said.some((c) => parts.every((p) => c.parts.includes(p)))) return [];
      return [
        partsFinding("one-place", {
          severity: "stop",
          message: `${one.name} and ${other.name} would stand in one another: ${mm(m.xMm)} along the case, ${mm(m.yMm)} up, ${mm(m.offMm)} off the tray.`,
          parts,
          ifIgnored: "One of them does not go in, or the case's entry is wrong: measure it.",
          ...(one.part && ["fan", "drive"].includes(one.kind) ? { tries: elsewhere(graph, one.part) } : {}),
        }),
      ];
    });
  },
};
