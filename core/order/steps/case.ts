import { partsOfKind } from "../../assembly";
import { fanSeats, slotsTaken, standoffs } from "../../fit";
import { upper } from "../../words";
import { CAUTION, SCREWS } from "../practice";
import { BOARD_IN, inPlace, list, mountId, nameOf, plural, type Site } from "./site";

/** A card so long is held in the empty case first, mm (common practice). */
const LONG_CARD_MM = 200;

/** The case opened and made ready, the board screwed in. */
export function caseSteps(site: Site): void {
  const { graph, shell, board, add, edge } = site;
  const cards = partsOfKind(graph, "card");
  if (shell) {
    const { panels = 2, glass } = shell.type.body;
    const filters = [...new Set(fanSeats(graph).flatMap((s) => (s.mount.filter ? [`filter, ${s.mount.region}`] : [])))];
    const off = panels === 2 ? "both panels" : panels === 1 ? "the panel" : "";
    if (panels > 0 || filters.length > 0)
      add({
        id: "open",
        kind: "prepare",
        measure: "open",
        title: `Open ${nameOf(shell)}: ${[off, filters.length > 0 ? "the filters" : ""].filter(Boolean).join(" and ")} off`,
        detail: `${upper([panels > 0 ? plural(panels, "panel", "panels") : "", filters.length > 0 ? `${plural(filters.length, "filter", "filters")} where fans go in` : ""].filter(Boolean).join(", "))}: put their screws into one bowl.${glass === false || panels === 0 ? "" : " Films stay on the glass until the last card."}`,
        rightWhen: panels === 1 ? "The side of the board is open" : "Both sides of the tray are open",
        postures: ["standing"],
        stage: 200,
        where: { at: "open" },
        screws: SCREWS.panel,
        takesOff: [...(panels > 0 ? ["panels"] : []), ...filters],
        ...(glass === false || panels === 0 ? {} : { caution: CAUTION.glass }),
        parts: [shell.id],
      });
    if (shell.part.cage === "out")
      add({
        id: "cage-out",
        kind: "prepare",
        measure: "cage-out",
        title: "Take the drive cage out of the case",
        detail: "The supply needs its room. Its screws and the cage go into the bag for the client.",
        rightWhen: "The bay is clear to the front",
        postures: ["front-up"],
        stage: 210,
        where: { at: "case" },
        screws: SCREWS.drive,
        takesOff: ["drive cage"],
        caution: CAUTION.edge,
        parts: [shell.id],
      });
    const slots = cards.reduce((n, c) => n + Math.ceil(slotsTaken(c)), 0);
    if (slots > 0) {
      add({
        id: "covers-out",
        kind: "prepare",
        measure: "covers-out",
        title: `Take ${plural(slots, "slot cover", "slot covers")} out`,
        detail: `For ${list(cards.map(nameOf))}. The covers and their screws go into the bag.`,
        rightWhen: "The card's bracket finds its openings",
        postures: ["standing", "front-up"],
        stage: 212,
        where: { at: "open" },
        screws: slots,
        takesOff: ["slot covers"],
        caution: CAUTION.edge,
        parts: [shell.id],
        mootOnce: cards.map((c) => inPlace(c)),
      });
      for (const c of cards) edge("needs", "covers-out", inPlace(c), "its slot covers are in the way");
    }
    const long = cards.filter((c) => (c.type.body.widthMm ?? 0) >= LONG_CARD_MM);
    if (long.length > 0) {
      add({
        id: "hold-card",
        kind: "check",
        measure: "hold-card",
        title: `Hold ${list(long.map(nameOf))} in the empty case`,
        detail: "Where it will be, against the front and what will hang there. It does not stay.",
        rightWhen: "It goes in at its full length, with room for its plugs",
        postures: ["standing", "front-up"],
        stage: 214,
        where: { at: "open" },
        parts: long.map((c) => c.id),
        mootOnce: [BOARD_IN, ...long.map((c) => inPlace(c))],
      });
      edge("needs", "covers-out", "hold-card", "its bracket needs the openings");
      edge("school", "hold-card", BOARD_IN, "a card that does not go in is found out while the case is empty");
      for (const p of [...partsOfKind(graph, "fan"), ...partsOfKind(graph, "supply")])
        edge("school", "hold-card", mountId(p.id), "the case is still empty");
    }
  }
  if (!board) return;
  if (board.type.ratings.looseIoShield) {
    add({
      id: "io-shield",
      kind: "prepare",
      measure: "io-shield",
      title: "Press the rear I/O shield into the case",
      detail: "From inside, until all four corners click. Forgotten, the board comes out again.",
      rightWhen: "Four clicks, and no tongue stands into a socket",
      postures: ["front-up", "standing"],
      stage: 220,
      where: { at: "case" },
      caution: CAUTION.edge,
      parts: [board.id],
    });
    edge("covers", "io-shield", BOARD_IN, "the board stands before it");
  }
  const s = standoffs(graph);
  const names = (holes: readonly { id: string }[]) => holes.map((h) => h.id).join(", ");
  const moves = [s && s.remove.length > 0 ? `take out ${names(s.remove)}` : "", s && s.add.length > 0 ? `add ${names(s.add)}` : ""].filter(Boolean);
  const holes = board.type.body.holes.length;
  const screws = holes - (s?.posts.length ?? 0);
  add({
    id: "standoffs",
    kind: "prepare",
    measure: "standoffs",
    title: moves.length > 0 ? `Standoffs: ${moves.join(", ")}` : holes > 0 ? `Check the standoffs: ${holes} for this board` : "Check the standoffs",
    detail: `One under each hole of ${board.type.name}, none anywhere else under the board.${holes > 0 ? "" : " Its part type says nothing of its holes: count them on the board."}`,
    rightWhen: "A standoff under each hole and nowhere else",
    postures: ["front-up"],
    stage: 222,
    where: { at: "case" },
    screws: s?.add.length ?? 0,
    parts: [board.id],
  });
  edge("covers", "standoffs", BOARD_IN, "the board lies on them");
  add({
    id: BOARD_IN,
    kind: "fit",
    measure: "board-in",
    title: "Lay the board into the case and screw it down",
    detail: `${board.type.name}, ${holes > 0 ? plural(screws, "screw", "screws") : "a screw in each hole"}${s && s.posts.length > 0 ? `; none at the fixed post ${names(s.posts)}` : ""}.`,
    rightWhen: "The sockets stand in their openings, every screw is started before the first is tight",
    postures: ["front-up"],
    stage: 300,
    where: { at: "board-in" },
    screws,
    caution: CAUTION.board,
    parts: [board.id],
  });
}
