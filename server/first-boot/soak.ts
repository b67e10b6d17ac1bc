import { z } from "zod";
import { done, no } from "../kernel/result";
import { JobNumber } from "../kernel/text";
import { jobAction } from "../unit/action";

export const Soak = z.object({ number: JobNumber });

/** The soak begins: everything was looked at. */
export const startSoak = jobAction({
  name: "job.soak",
  permission: "record",
  input: Soak,
  run: async (unit) => {
    if (unit.stage.now() !== "first-boot") return no("The soak comes after first boot. Nothing was changed. Look at the first-boot sheet first.");
    unit.stage.to("soaks");
    unit.emit("soaking", {});
    return done();
  },
});
