import { z } from "zod";

/** A photo that is in the store: px and bytes. */
export const KeptPhotoSize = z.object({
  id: z.uuid(),
  width: z.number().int().min(1),
  height: z.number().int().min(1),
  bytes: z.number().int().min(1),
});
export type Kept = z.infer<typeof KeptPhotoSize>;
