import { z } from "zod";
import { done, no } from "../kernel/result";
import { Saw, seenOtherwise } from "../kernel/saw";
import { JobNumber, text } from "../kernel/text";
import { jobAction } from "../unit/action";

export const Setting = z.object({
  number: JobNumber,
  memoryProfile: z.boolean().optional(),
  cpuFanWarning: z.enum(["halt", "ignore"]).optional(),
  because: text(500).optional(),
  saw: Saw,
});

/** A setting of the firmware, as it is or is to be. */
export const setting = jobAction({
  name: "first-boot.setting",
  permission: "record",
  input: Setting,
  run: async (unit, s) => {
    if (s.cpuFanWarning === "ignore" && !s.because) return no("Ignoring the CPU fan warning needs a written reason. Nothing was changed.");
    const { number: _number, because, saw, ...changed } = s;
    const { settings } = (await unit.build()).build;
    const two = seenOtherwise(saw, [
      { field: "memoryProfile", word: "the memory profile", is: settings.memoryProfile, now: s.memoryProfile, words: (v) => (v ? "on" : "off") },
      { field: "cpuFanWarning", word: "the CPU fan warning", is: settings.cpuFanWarning, now: s.cpuFanWarning },
    ]);
    if (two) return two;
    unit.job.settings = { ...settings, ...changed };
    unit.emit("setting", { ...changed, ...(because ? { because } : {}) });
    return done();
  },
});
