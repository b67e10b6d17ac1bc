/** A sentence of a paper: by its id and values, in whichever language; or words of the record as they stand. */
export type Say = { id: string; with?: Record<string, string | number> } | { words: string };
export const say = (id: string, values?: Record<string, string | number>): Say => ({ id, ...(values ? { with: values } : {}) });
export const asItIs = (words: string): Say => ({ words });

/** A row of a section: what, what of it, and a figure or number on the right. */
export interface Row {
  what: Say;
  says?: Say;
  right?: Say;
}
export interface Section {
  title: Say;
  /** Before its rows. */
  lead?: Say;
  rows: Row[];
  /** The machine is drawn here, from this side. */
  drawing?: "front" | "behind";
  /** Without leads, its things in plain words. */
  plain?: true;
}
export interface Paper {
  title: Say;
  under: Say[];
  sections: Section[];
}

/** A section without rows is left out, unless it says something by itself. */
export const withRows = (sections: readonly Section[]): Section[] => sections.filter((s) => s.rows.length > 0 || s.lead || s.drawing);
