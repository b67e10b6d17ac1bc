import type { LeadNode, PortNode } from "../assembly";
import { hungOn, signallers } from "../brings";
import { either, fails, join, leadPath, type Path, type World } from "./paths";

/** The leads whose speed a header may read, each with its way: current to the fan, and its signal back. */
export const speedPaths = (world: World, header: PortNode): { lead: LeadNode; path: Path }[] =>
  signallers(world.graph, header).map(({ lead, through }) => {
    const path = join(
      world,
      [lead, ...through].map((l) => leadPath(world, l.address)),
    );
    // A fan that stands still or whose signal is dead tells no speed.
    const mute = fails(world, "motor", lead.address, lead.part.id) ?? fails(world, "signal", lead.address, lead.part.id);
    return { lead, path: mute === undefined || !path.ok ? path : { ...path, ok: false, missing: mute } };
  });

/** Some lead under the header gives it a speed signal. */
export function speedSignal(world: World, header: string): Path {
  const p = world.graph.ports.get(header);
  const paths = p ? speedPaths(world, p).map((s) => s.path) : [];
  if (paths.length > 0) return either(paths);
  const on = p && hungOn(world.graph, p);
  return {
    ok: false,
    leans: [],
    missing: on && on.leads.length > 0 ? `nothing on ${p?.name} gives it a speed signal` : `${p?.name ?? "the CPU fan header"} is empty`,
  };
}
