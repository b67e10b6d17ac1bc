import { type Graph, kept, type PartNode, type PortNode, partsOfKind, type Rect } from "../assembly";
import { bodyOf } from "./spots";
import { type Body, bodies } from "./stand";

const inside = (r: Rect, xMm: number, yMm: number): boolean => xMm > r.xMm && xMm < r.xMm + r.widthMm && yMm > r.yMm && yMm < r.yMm + r.heightMm;

/**
 * Cards that hide a port once they are in: what lies over it, and, where the board's entry says that cards do, those
 * that are long enough. A card that stands hides what it stands before; what the entry says is meant of cards in their slots.
 */
export function cardsOver(graph: Graph, p: PortNode): readonly PartNode[] {
  if (p.part.type.kind !== "board") return p.port.coveredBy.includes("card") ? partsOfKind(graph, "card") : [];
  const all = kept(graph, "cards-over", ["board", "card", "case"], () => new Map<string, readonly PartNode[]>());
  const known = all.get(p.address);
  if (known) return known;
  const made = partsOfKind(graph, "card").filter((card) => {
    const body = bodyOf(graph, card.id);
    // A slot below is no port that hands want: two cards in one place are a finding of their own.
    if (body && p.port.role !== "expansion" && inside(body.rect, p.at.xMm, p.at.yMm)) return true;
    if (card.part.vertical || !p.port.coveredBy.includes("card")) return false;
    return body === undefined || p.at.xMm < body.rect.xMm + body.rect.widthMm;
  });
  all.set(p.address, made);
  return made;
}

/** Kinds of things on the board that a card which stands hides, as far as hands are concerned. */
const HIDDEN: readonly Body["kind"][] = ["cooler", "pump", "radiator"];

/** What a standing card stands before: nobody gets at it without taking the card out. */
export function behindStanding(graph: Graph, card: PartNode): readonly Body[] {
  const own = card.part.vertical ? bodyOf(graph, card.id) : undefined;
  if (!own) return [];
  const meet = (a: Rect, b: Rect) =>
    a.xMm < b.xMm + b.widthMm && b.xMm < a.xMm + a.widthMm && a.yMm < b.yMm + b.heightMm && b.yMm < a.yMm + a.heightMm;
  return bodies(graph).filter((b) => HIDDEN.includes(b.kind) && b.depth[1] <= own.depth[0] + 1e-9 && meet(b.rect, own.rect));
}
