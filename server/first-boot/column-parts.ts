/** Of which part a column of a log may be. */
export const COLUMN_PARTS = ["cpu", "card", "drive", "board", "memory", "fan", "other"] as const;
