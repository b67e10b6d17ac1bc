/** An edge of the board, as hands go along it; or the ports that lie inside. */
export type Edge = "top edge" | "bottom edge" | "front edge" | "rear edge" | "inside the board";

/** Where hands do a step, in one go with others: one card at the bench while the case lies as it does. */
export type Where =
  /** On the table: board, cooler, memory. */
  | { at: "table" }
  | { at: "radiator"; cooler: string }
  /** A machine that is started before it is whole. */
  | { at: "trial"; of: "bench-test" | "rehearsal" | "fan-test" | "first-start" }
  /** The case as it comes: opened, emptied, made ready. */
  | { at: "open" }
  | { at: "case" }
  | { at: "board-in" }
  | { at: "cooler" }
  | { at: "hang"; cooler: string }
  | { at: "head"; cooler: string }
  | { at: "supply" }
  | { at: "fans" }
  | { at: "lights" }
  /** What is fixed behind the tray, and drives that are plugged there. */
  | { at: "behind" }
  | { at: "drives-behind" }
  | { at: "hubs" }
  | { at: "hub"; part: string; name: string }
  | { at: "cage" }
  /** Leads that go behind the tray, and what is joined where it hangs. */
  | { at: "led" }
  | { at: "edge"; part: string; edge: Edge }
  | { at: "card"; part: string }
  | { at: "dressed" }
  | { at: "tie" }
  | { at: "look" }
  | { at: "gate"; gate: string }
  | { at: "close" };
export type WhereAt = Where["at"];

/** Two steps are at one place when this is the same of both. A name is none of it. */
export function whereKey(w: Where): string {
  switch (w.at) {
    case "radiator":
    case "hang":
    case "head":
      return `${w.at}:${w.cooler}`;
    case "trial":
      return w.of;
    case "hub":
    case "card":
      return `${w.at}:${w.part}`;
    case "edge":
      return `edge:${w.part}:${w.edge}`;
    case "gate":
      return `gate:${w.gate}`;
    default:
      return w.at;
  }
}
