/** The schools of the shop: the questions on which good technicians differ, with the answers that there are. */
export const SCHOOLS = [
  {
    id: "cooling",
    word: "Pump and radiator fans",
    options: [
      ["fans-follow-cpu", "fans follow the CPU header, pump on its own"],
      ["pump-first", "pump on the CPU header, so that a dead pump is seen"],
      ["self-controlled", "the cooler steers itself"],
    ],
  },
  {
    id: "caseFans",
    word: "Case fans",
    options: [
      ["group-by-place", "one header for a place, on splitters"],
      ["own-header", "a header for each while there are some"],
      ["hub", "on a hub"],
    ],
  },
  {
    id: "secondCpuPlug",
    word: "Second CPU plug",
    options: [
      ["by-draw", "when the draw needs it"],
      ["always", "always"],
    ],
  },
  {
    id: "graphicsCables",
    word: "Graphics cables",
    options: [
      ["by-draw", "two sockets on a cable while its watts allow"],
      ["one-each", "a cable for each socket"],
    ],
  },
  {
    id: "mainsV",
    word: "Mains",
    options: [
      ["230", "230 V"],
      ["115", "115 V"],
    ],
  },
] as const;

export type SchoolId = (typeof SCHOOLS)[number]["id"];

/** What was picked, as the server takes it: mains are a number. */
export const pickedSchools = (picked: Partial<Record<SchoolId, string>>): Record<string, string | number> =>
  Object.fromEntries(Object.entries(picked).flatMap(([k, v]) => (v ? [[k, k === "mainsV" ? Number(v) : v]] : [])));
