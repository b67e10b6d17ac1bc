import { z } from "zod";
import { Address } from "../../core/assembly";
import { no, type Result, yes } from "../kernel/result";
import { JobNumber } from "../kernel/text";
import { jobAction } from "../unit/action";

export const AnotherCable = z.object({ number: JobNumber, lead: Address });

/**
 * A cable of a supply's bag is broken: another of the same kind that lies in the bag takes its place, every plug where it was planned,
 * none of them in yet. Where the bag has no other, that is said, with what to order.
 */
export const anotherCable = jobAction({
  name: "bench.another-cable",
  permission: "record",
  input: AnotherCable,
  run: async (unit, c): Promise<Result<string>> => {
    const b = await unit.build();
    const node = b.graph.leads.get(c.lead)?.part;
    const cable = node?.cable;
    if (!node || !cable) return no(`${c.number} has no such cable any more. Nothing was changed. Look at the card again.`);
    const name = node.part.label ?? cable.cable.label;
    const used = new Set(b.build.connections.map((x) => x.lead.slice(0, x.lead.lastIndexOf(":"))));
    const other = [...b.graph.parts.values()].find((p) => p.cable?.owner === cable.owner && p.cable.cable.id === cable.cable.id && !used.has(p.id));
    if (!other)
      return no(
        `The bag has no other ${cable.cable.label}. Order one that is made for ${b.graph.parts.get(cable.owner)?.type.name ?? "this supply"}, no other. Nothing was changed.`,
      );
    let moved = 0;
    for (const x of b.build.connections) {
      if (!x.lead.startsWith(`${node.id}:`)) continue;
      const link = await unit.links.find(x.lead);
      if (!link) continue;
      await unit.links.remove(x.lead);
      await unit.links.put(`${other.id}${x.lead.slice(node.id.length)}`, {
        port: link.port,
        place: link.place ?? null,
        state: "planned",
        plannedPort: null,
        why: link.why,
      });
      moved++;
    }
    const now = other.part.label ?? other.id;
    unit.emit("problem", { text: `${name} is put aside; ${now} from the bag takes its place, ${moved} ${moved === 1 ? "plug" : "plugs"}.` });
    return yes(`${now} takes its place: plug it instead, supply switch off. Mark ${name} as broken and keep it out of the bag.`);
  },
});
