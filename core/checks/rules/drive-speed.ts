import { driveOrder, slotMBs } from "../../wiring";
import { ALWAYS, finding, joints, type Rule } from "../rule";

/** What a drive may lose to its slot before it is worth a word: a tenth. */
const WORTH = 0.9;

export const driveSpeed: Rule = {
  id: "drive-speed",
  title: "Fast drives sit in fast slots",
  protects: "speed that the client paid for",
  on: ALWAYS,
  run: ({ graph }) => {
    const seated = joints(graph).filter((j) => j.lead.lead.family === "m2");
    const turn = (id: string) => driveOrder(graph).findIndex((d) => d.id === id);
    return seated.flatMap(({ c, lead, port }) => {
      const mbs = slotMBs(port.port, lead.lead.protocol);
      const reads = lead.part.type.ratings.readMBs;
      if (mbs === undefined || reads === undefined || mbs >= reads * WORTH) return [];
      const name = lead.part.part.label ?? lead.part.type.name;
      // A faster slot of the board that is empty, or holds a drive whose turn comes later.
      const better = [...graph.ports.values()].find((p) => {
        if (p.part !== port.part || p.port.family !== "m2" || p.port.rank >= port.port.rank) return false;
        if ((slotMBs(p.port, lead.lead.protocol) ?? 0) <= mbs || (p.port.protocols && !p.port.protocols.includes(lead.lead.protocol ?? "nvme")))
          return false;
        const there = graph.leads.get(graph.atPort.get(p.address)?.[0]?.lead ?? "");
        return !there || turn(there.part.id) > turn(lead.part.id);
      });
      const numbers = `${name} reads ${reads} MB/s; ${port.name} carries ${Math.floor(mbs)} MB/s.`;
      return [
        better
          ? finding("drive-speed", "warn", `${numbers} ${better.name} is faster: put it there.`, [c.lead, c.port], {
              kind: "move",
              label: `Move it to ${better.name}`,
              lead: c.lead,
              port: better.address,
            })
          : finding("drive-speed", "note", `${numbers} No faster slot is left for it.`, [c.lead, c.port]),
      ];
    });
  },
};
