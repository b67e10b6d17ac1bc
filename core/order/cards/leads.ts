import type { Step } from "../model";
import { type Cards, counted, edgeOrAssembly, firstAndMore, plugsOf } from "./kind";

/** Leads that go behind the tray, and what is joined there or where it hangs. */
function led(steps: readonly Step[]): string {
  const plugs = plugsOf(steps);
  const behind = steps.reduce((m, s) => m + (s.kind === "route" ? s.leads.length : 0), 0);
  if (behind === 0) return `Join ${counted(plugs, "lead")} inside the case`;
  return `Lead ${counted(behind, "lead")} behind the tray${plugs > 0 ? ` and join ${plugs}` : ""}`;
}

/** Leads on their way: led, joined, dressed, tied. */
export const LEADS: Cards<"led" | "dressed" | "tie"> = {
  led: { kind: "assembly", title: led },
  dressed: { kind: edgeOrAssembly, title: (steps) => `Dress the leads: ${counted(steps.length, "loom")}` },
  tie: { kind: edgeOrAssembly, title: firstAndMore },
};
