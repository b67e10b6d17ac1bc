import type { JobView } from "../job-view";

/** What First boot shows of a job. */
export const bootSlice = ({ power, seen, head, build, progress }: JobView) => ({ power, seen, head, settings: build.settings, progress });
export type BootSlice = ReturnType<typeof bootSlice>;
