import { partsOfKind } from "../../assembly";
import { noRoomBehind } from "../../catalogue";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

/** Racks, cubes and open frames: nothing is led, folded or dressed behind their tray. */
export const noRoomBehindTray: Rule = {
  id: "no-room-behind",
  title: "There is room behind the tray",
  protects: "a back that does not close",
  on: PARTS_ONLY,
  reads: ["case"],
  run: ({ graph }) =>
    partsOfKind(graph, "case").flatMap((shell) =>
      noRoomBehind(shell.type.body)
        ? [
            partsFinding("no-room-behind", {
              severity: "note",
              message: `${shell.type.name} has ${shell.type.body.behindTrayMm} mm behind its tray: every lead runs in front, and what is too long is folded beside its port. Shorter cables are worth asking for.`,
              parts: [shell.id],
            }),
          ]
        : [],
    ),
};
