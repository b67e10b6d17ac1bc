import type { Address } from "../../assembly";
import type { PartType } from "../../catalogue";
import type { Consumer, Nets, OpenRoot } from "./consumers";

/** A type of accessory that hangs at a root and turns one place into several: a splitter (or, with one, an extension). */
export interface Splitter {
  type: PartType;
  family: string;
  ports: number;
  lengthMm: number;
  shelf: number;
  order: number;
}

export interface NetChoice {
  consumer: Consumer;
  root: OpenRoot;
  variable: number;
  via?: { splitter: Splitter; from: "shelf" | "order" };
  /** Too short for the root: it can only hang behind another part. */
  follows?: boolean;
}
export interface NetSplitters {
  splitter: Splitter;
  root: OpenRoot;
  from: "shelf" | "order";
  variable: number;
}
export interface NetVariables {
  nets: Nets;
  choices: NetChoice[];
  splitters: NetSplitters[];
  free: Map<string, number>;
  /** Control leads of units that need no header of the board, where nothing else is chosen. */
  alone: Map<string, number>;
  /** Which zone's speed signal is to pass each root. */
  signals: SpeedSignal[];
  passes: Passing[];
  /** Where it is 1, a zone has a lead on a group: by `zone on group`. Only where the zone has a choice. */
  zoneOn: Map<string, number>;
  /** Zones of which every lead departs from the school on a hub under some kinds of header; the departures counted there. */
  departing: { hub: string; zone: string; roles: ReadonlySet<string>; departs: readonly number[] }[];
  /** By place and role: what is 1 where one of its leads departs from the school; by choice, those of it that always do. */
  departures: Map<string, number>;
  departs: Map<number, string>;
  /** What prices places that share a control, by that control; hubs whose sharing is counted at their headers. */
  priced: Map<number, string>;
  joined: Set<string>;
  /** Where it is 1, a lead hangs behind a through-plug; roots on which this is asked one by one. */
  arcs: { root: OpenRoot; host: Address; choice: NetChoice; variable: number }[];
  arced: Set<string>;
}

/** Where it is 1, the speed signal that passes a root is that of this zone. */
export interface SpeedSignal {
  zone: string;
  group: string;
  variable: number;
}

/** Where it is 1, the signal that a hub holds passes on to what its lead hangs on. */
export interface Passing {
  hub: string;
  host: string;
  variable: number;
}

/** A pump shares its header with nothing but the signal of its own cooler. */
export const ofOnePump = (a: Consumer, b: Consumer): boolean =>
  a.node.part.id === b.node.part.id && [a, b].some((c) => c.node.lead.role === "cooler-speed");

export const zonesOf = (nets: Nets) => [...new Set(nets.consumers.flatMap((c) => (c.zone === undefined ? [] : [c.zone])))].sort();
