import { type Graph, partsOfKind } from "../assembly";
import { clearances } from "../fit";
import { powerBudget } from "../power";

/** Something that the machine still has room for: what, how much of it, and of what. */
export interface Room {
  id: "memory" | "drive-m2" | "drive-sata" | "card" | "fan" | "light" | "usb" | "bay" | "watts" | "card-length" | "cooler-height";
  /** Ports and places by count; watts and millimetres as they are. */
  count: number;
}

const PORTS: readonly [Room["id"], (family: string, role: string) => boolean][] = [
  ["memory", (f) => f === "memory-slot"],
  ["drive-m2", (f) => f === "m2"],
  ["drive-sata", (f) => f === "sata-data"],
  ["card", (f) => f === "pcie-slot"],
  ["fan", (f, role) => (f === "fan-4" || f === "fan-3") && role !== "pump"],
  ["light", (f) => f === "light-5v"],
  ["usb", (f) => f.startsWith("usb")],
];
/** Kinds whose free ports somebody could still fill. */
const HOSTS = new Set(["board", "hub"]);

/** What could still go into the machine as it is plugged, computed: free slots and headers, bays, watts of the supply, millimetres. */
export function roomToGrow(graph: Graph): Room[] {
  const out: Room[] = [];
  const put = (id: Room["id"], count: number) => {
    if (count > 0) out.push({ id, count: Math.floor(count) });
  };
  const free = [...graph.ports.values()].filter((p) => p.port.flow === "out" && HOSTS.has(p.part.type.kind) && !graph.atPort.get(p.address)?.length);
  for (const [id, is] of PORTS) put(id, free.filter((p) => is(p.port.family, p.port.role)).length);
  const shell = partsOfKind(graph, "case")[0];
  const taken = new Set(graph.build.parts.flatMap((p) => p.mount ?? []));
  put("bay", (shell?.type.body.mounts ?? []).filter((m) => m.takes.includes("drive") && !taken.has(m.id)).length);
  const { supply, headroomW } = powerBudget(graph);
  if (supply) put("watts", headroomW);
  for (const c of clearances(graph)) {
    if (c.unit === "mm" && c.id.startsWith("card-length:")) put("card-length", c.has);
    if (c.unit === "mm" && c.id.startsWith("cooler-height:")) put("cooler-height", c.has);
  }
  return out;
}
