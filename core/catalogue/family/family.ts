import type { Loom } from "../looms";

/** What one position of a connector carries. Colours are those of the standard, where it names them. */
export interface Pin {
  pin: number;
  signal: string;
  wire?: string;
}

/**
 * A connector family: the shape, the pin-out and what it is rated for.
 * Pins are numbered as the source numbers them; `order` lists them row by row as seen
 * when looking at the pins (or sockets) of the board.
 */
export interface ConnectorFamily {
  id: string;
  name: string;
  loom: Loom;
  /**
   * How the planner gives its plugs a place: `net` shares current, command or bandwidth on a root; `supply` is fed by cables out
   * of the bag; `direct` goes into one port of its own; `cable` is joined by a loose cable with a plug at each end.
   */
  planned: "net" | "supply" | "direct" | "cable";
  /**
   * Its turn in the usual order of work, from 0 to 200, where that follows from the family alone (common practice: front panel before
   * the supply's cables, SATA data late, cards last). Left out: it follows from the part that it belongs to.
   */
  turn?: number;
  /**
   * Where hands reach its ports that are not on a board or a card: behind the tray (common practice for drives and the supply's outlets
   * in towers with a tray). Left out: at the front.
   */
  side?: "behind";
  /** Rows of pin numbers as drawn; a missing position is `null`. */
  order: (number | null)[][];
  pins: Pin[];
  /** Position without a pin, which keys the plug. */
  blank?: number;
  /** How the plug is kept from going in the wrong way round. */
  keyedBy: string;
  /** How many plugs one port takes when they are the smallest that mate with it. */
  places: number;
  /** Needs an equal `key` on plug and port: supply outlets, sockets, makers' own plugs. */
  ownKey?: true;
  /** Outline of a port on a board in mm, as it lies unturned: the housing, to scale. Left out: 10 by 6. */
  drawnMm?: readonly [number, number];
  /** It lies flat and is drawn the same way however the board turns it. */
  lies?: true;
  /** What a tired eye sees of it: ports of one shape are taken for one another. */
  looks?: "block of 2 × 5" | "row of pins" | "block of 2 × 4";
  /** Big enough to find one's way by: drawn with a thin edge, named inside or beside. */
  landmark?: true;
  /** What one plug may carry, where the family itself sets a limit. */
  rating?: { powerW: number; standing: "published" | "practice" | "formula" };
  source: string;
}
