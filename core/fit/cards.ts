import { boardPorts, type Graph, type PartNode, type PortNode, partsOfKind } from "../assembly";

/** Pitch of expansion slots: 0.8 inch, PCI Express CEM, published (from memory). */
export const SLOT_PITCH_MM = 20.32;

/** How many slot widths a card takes: where its entry does not say, two with graphics, one without (common practice). */
export const slotsTaken = (card: PartNode): number => card.type.body.slots ?? (card.type.ratings.hasGraphics ? 2 : 1);

/** The slot of a card: where it is or will be plugged; before a plan cards take the slots from the top, in the order of the list. */
export function slotOf(graph: Graph, card: PartNode): PortNode | undefined {
  const slots = boardPorts(graph, "expansion");
  return slots.find((p) => p.address === graph.ofLead.get(`${card.id}:seat`)?.port) ?? slots[partsOfKind(graph, "card").indexOf(card)] ?? slots[0];
}

/** Cards that lie level on the board, as boxes of the side section in case millimetres. */
export function cardBoxes(graph: Graph): { part: PartNode; x: number; y: number; w: number; h: number }[] {
  return partsOfKind(graph, "card").flatMap((part) => {
    const slot = slotOf(graph, part);
    if (part.part.vertical || !slot || part.type.body.widthMm === undefined) return [];
    return [{ part, x: graph.boardRect?.xMm ?? 0, y: slot.at.yMm, w: part.type.body.widthMm, h: slotsTaken(part) * SLOT_PITCH_MM }];
  });
}
