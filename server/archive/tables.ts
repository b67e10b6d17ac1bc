/** What of a job goes into its archive, by table, in the order in which it is taken in again. Secrets, tokens and what is derived stay here. */
export const TABLES = [
  "job_part",
  "finding_override",
  "plan",
  "connection",
  "step_done",
  "step_skipped",
  "step_time",
  "observation",
  "fault",
  "fault_event",
  "setup_done",
  "proof",
  "soak_log",
  "loan",
  "by_itself",
  "offer",
  "part_return",
  "photo",
  "log_entry",
] as const;

/** Tables whose ids the database counts itself: they are counted anew where they are taken in. */
export const COUNTED: ReadonlySet<string> = new Set(["fault_event", "log_entry"]);

/** Columns that name a person. */
export const NAMES_PERSON = /(^|_)by_id$|^technician_id$|_to_id$/;
