import type { Step } from "../model";
import { type Cards, counted, plugsOf } from "./kind";

/** Its card says its own order: plugged and then slid in, or the other way round. */
function title(steps: readonly Step[]): string {
  const plugs = plugsOf(steps);
  const slide = steps.findIndex((s) => s.kind !== "plug");
  if (slide < 0) return `Plug ${counted(plugs, "cable")} into the supply`;
  if (slide === 0) return `Slide the supply in, then plug ${counted(plugs, "cable")} into it`;
  return slide === steps.length - 1
    ? `Plug ${counted(plugs, "cable")} into the supply and slide it in`
    : `Plug ${counted(slide, "cable")} into the supply, slide it in, then plug ${steps.length - 1 - slide} more`;
}

export const SUPPLY: Cards<"supply"> = { supply: { kind: "assembly", title } };
