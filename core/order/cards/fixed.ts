import { type Cards, edgeOrAssembly } from "./kind";

/** What is screwed or stuck to the case. */
export const FIXED: Cards<"fans" | "lights" | "behind" | "hubs"> = {
  fans: { kind: edgeOrAssembly, title: (steps) => `Fit the fans: ${steps.length}` },
  lights: { kind: edgeOrAssembly, title: (steps) => `Fix the lights: ${steps.length}` },
  behind: { kind: edgeOrAssembly, title: (steps) => `Fix what sits behind the tray: ${steps.length}` },
  hubs: { kind: edgeOrAssembly, title: (steps) => `Fix the hubs: ${steps.length}` },
};
