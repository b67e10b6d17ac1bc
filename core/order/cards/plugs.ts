import { type Cards, counted, edgeOrAssembly, plugsOf } from "./kind";

/** Plugs that hands put in one after the other: along an edge of the board, at a hub, at the drives behind the tray. */
export const PLUGS: Cards<"edge" | "hub" | "drives-behind"> = {
  edge: {
    kind: "edge",
    title: (steps, { edge }) => `Plug the ${edge === "inside the board" ? "inner ports" : edge}: ${counted(plugsOf(steps), "plug")}`,
  },
  hub: { kind: edgeOrAssembly, title: (steps, { name }) => `Plug ${name}: ${counted(plugsOf(steps), "plug")}` },
  "drives-behind": { kind: edgeOrAssembly, title: (steps) => `Plug the drives behind the tray: ${counted(plugsOf(steps), "plug")}` },
};
