import type { PartKind } from "../../core/catalogue";

const WORDS: Record<PartKind, string> = {
  board: "Board",
  cpu: "CPU",
  cooler: "Cooler",
  memory: "Memory",
  drive: "Drive",
  card: "Card",
  supply: "Power supply",
  case: "Case",
  fan: "Fan",
  lighting: "Lighting",
  hub: "Hub",
  "usb-hub": "USB hub",
  splitter: "Splitter",
  extension: "Extension",
  adapter: "Adapter",
  cable: "Cables",
};

/** Kinds in words; rows from the database bring any text as their kind. */
export const KIND_WORD: Record<string, string> = WORDS;
