import { type Graph, type PartNode, partsOfKind, withConnections } from "../assembly";
import { memorySpeed } from "../memory";
import { boardEnd, otherEnd } from "../wiring";
import { upper } from "../words";
import { type Expectation, leansOf, NOT_REACHED } from "./expectation";
import { type Element, either, join, jointElement, type Path, partElement, powerPath, seatPath, type World } from "./paths";

export function memoryLines(world: World, start: Path): Expectation[] {
  const nodes = partsOfKind(world.graph, "memory");
  const modules = nodes.map((m) => seatPath(world, m.id));
  // A bad module is not counted, as if it were not in.
  const dead = nodes.filter((_, i) => !modules[i]?.ok).map((m) => `${m.id}:`);
  const seen = withConnections(
    world.graph,
    world.graph.connections.filter((c) => !dead.some((d) => c.lead.startsWith(d))),
  );
  const speed = memorySpeed(seen, world.graph.build.settings.memoryProfile) ?? memorySpeed(world.graph, world.graph.build.settings.memoryProfile);
  if (!speed) return [];
  const base = { group: "Memory" as const, works: start.ok, otherwise: [] };
  const because = start.ok ? "" : `${upper(start.missing ?? "")}.`;
  return [
    {
      ...base,
      ...leansOf(join(world, [start, ...modules])),
      id: "memory-size",
      what: "Memory size",
      expected: start.ok ? String(speed.sizeGb) : "not seen",
      wanted: String(nodes.reduce((n, m) => n + (m.type.ratings.sizeGb ?? 0), 0)),
      unit: "GB",
      because: because || (speed.modules === 1 ? "One module." : `${speed.modules} modules.`),
    },
    {
      ...base,
      ...leansOf(join(world, [start, either(modules)])),
      id: "memory-speed",
      what: "Memory speed",
      expected: start.ok ? String(speed.mts) : "not seen",
      wanted: String(memorySpeed(world.graph, world.graph.build.settings.memoryProfile)?.mts ?? speed.mts),
      unit: "MT/s",
      because: because || `Limited by ${speed.because}. A tool that reads the clock shows ${Math.round(speed.mts / 2)} MHz.`,
    },
  ];
}

export function driveLines(world: World, whole: Graph, start: Path): Expectation[] {
  const { graph } = world;
  return partsOfKind(whole, "drive").map((d): Expectation => {
    const own = d.type.leads.some((l) => l.role === "seat") ? seatPath(world, d.id) : sataPath(world, d.id);
    const path = join(world, [start, own]);
    const expected = !start.ok ? NOT_REACHED : path.ok ? "listed" : "missing";
    return {
      id: `drive:${d.id}`,
      group: "Drives",
      what: d.part.label ?? d.type.name,
      works: path.ok,
      expected,
      wanted: "listed",
      otherwise: ["listed", "missing"].filter((w) => w !== expected),
      because: path.ok ? `${d.type.name}${bootName(graph, d.id)}.` : `${upper(path.missing ?? "")}.`,
      ...leansOf(path),
    };
  });
}

function bootName(graph: Graph, drive: string): string {
  const at = graph.connections.find((c) => c.lead.startsWith(`${drive}:`));
  const sata = graph.atPort.get(`${drive}:data`)?.[0];
  const port = at ? graph.ports.get(at.port) : boardEnd(graph, sata);
  return port ? ` in ${port.name}` : "";
}

/** Both ends of a data cable, where they are in something. */
const jointsOf = (graph: Graph, cable: PartNode): Element[] =>
  cable.type.leads.flatMap((end) => {
    const l = graph.leads.get(`${cable.id}:${end.id}`);
    const p = l && graph.ports.get(graph.ofLead.get(l.address)?.port ?? "");
    return l && p ? [jointElement(l, p)] : [];
  });

function sataPath(world: World, drive: string): Path {
  const { graph } = world;
  const part = graph.parts.get(drive);
  const power = part?.type.ports.find((p) => p.role === "device-power");
  const data = part?.type.ports.find((p) => p.role === "drive-data" && p.flow === "in");
  const powered = power ? graph.ports.get(`${drive}:${power.id}`) : undefined;
  const paths: Path[] = powered ? [powerPath(world, powered)] : [];
  if (data) {
    const c = graph.atPort.get(`${drive}:${data.id}`)?.[0];
    const other = boardEnd(graph, c);
    const l = c && graph.leads.get(c.lead);
    const off =
      other &&
      [...graph.ports.values()].find((p) => p.part === other.part && p.port.displaces.includes(other.port.id) && graph.atPort.get(p.address)?.length);
    const leans: Element[] = [
      partElement(graph, drive),
      ...(l ? [{ id: l.part.id, kind: "cable" as const, name: `${l.part.part.label}` }, ...jointsOf(graph, l.part)] : []),
      ...(other ? [{ id: other.address, kind: "port" as const, name: other.name }] : []),
    ];
    const missing = !c
      ? "its data cable is not plugged"
      : !other
        ? otherEnd(graph, c)
          ? `its data cable ends in ${otherEnd(graph, c)?.name}, which gives no data`
          : "the other end of its data cable is loose"
        : off
          ? `${off.name} switches ${other.name} off`
          : undefined;
    paths.push(missing === undefined ? { ok: true, leans } : { ok: false, leans, missing });
  }
  return join(world, paths);
}
