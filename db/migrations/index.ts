import { ThinSlice } from "./0001-thin-slice";
import { Parts } from "./0002-parts";

/** Imported statically, in order: nothing is looked up on disk at run time. */
export const MIGRATIONS = [
  { name: "0001-thin-slice", class: ThinSlice },
  { name: "0002-parts", class: Parts },
];
