import { type Graph, partsOfKind } from "../assembly";
import type { Way } from "./ready";

export interface Packing {
  id: string;
  what: string;
  /** Why, for this machine. */
  because: string;
}

/** From these on a part bends its slot or its board on the road (common practice): mm over the board, mm of a card's length. */
const [TALL_MM, LONG_MM] = [150, 300];

/** A case whose entry does not say otherwise has glass, as most have now (common practice). */
export const hasGlass = (graph: Graph): boolean => partsOfKind(graph, "case").some((c) => c.type.body.glass !== false);

/** What the way out asks for. Collected by car it is little; a parcel falls (common practice). */
export function packingOf(graph: Graph, way: Way | undefined): Packing[] {
  if (way === undefined) return [];
  const out: Packing[] = [];
  const name = (p: { part: { label?: string | undefined }; type: { name: string } }) => p.part.label ?? p.type.name;
  for (const c of partsOfKind(graph, "cooler")) {
    const high = c.type.body.heightMm ?? 0;
    if (c.type.body.radiator === undefined && high >= TALL_MM && way === "travels")
      out.push({
        id: `apart ${c.id}`,
        what: `${name(c)} is braced, or goes apart in its own box`,
        because: `It stands ${high} mm over the board and pulls on it.`,
      });
  }
  for (const c of partsOfKind(graph, "card")) {
    const long = c.type.body.widthMm ?? 0;
    if (long >= LONG_MM)
      out.push({
        id: `apart ${c.id}`,
        what: way === "travels" ? `${name(c)} is braced at its far end, or goes apart in its own box` : `${name(c)} has its support in place`,
        because: `It is ${long} mm long and hangs on its slot.`,
      });
  }
  if (way === "travels") {
    out.push({
      id: "foam",
      what: "Foam fills the machine, with a note on the box that it comes out before use",
      because: "Parts do not swing against each other.",
    });
    if (hasGlass(graph)) out.push({ id: "glass", what: "Glass panels are padded, and the box says so", because: "Glass breaks at its corners." });
    out.push({ id: "box", what: "It is in a box inside a box, this side up", because: "A carrier drops it once." });
  } else
    out.push({
      id: "lying",
      what: "The client is told to lay it on its tray's side, belted in",
      because: "Upright it tips, and a card hangs on its slot.",
    });
  return out;
}
