import { type PartNode, type PortNode, partsOfKind, portNodes } from "../../assembly";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

const forDrives = (part: PartNode) =>
  part.type.ports.some((p) => p.role === "drive-data" && p.flow === "out")
    ? portNodes(part).filter((p) => p.port.role === "drive-data" && p.port.flow === "out")
    : [];

const count = (n: number, one: string) => `${n} ${one}${n === 1 ? "" : "s"}`;

/** Among more slots than these not every choice is tried: no board has so many. */
const MOST_TRIED = 10;

/**
 * What `n` of the slots switch off together where it is as little as can be, by what each of them does. Among very many slots those that
 * do least by themselves are taken.
 */
function leastDisplaced(all: readonly (readonly PortNode[])[], n: number): PortNode[] {
  const ranked = [...all].sort((a, b) => a.length - b.length);
  const bySlot = ranked.slice(0, Math.max(n, MOST_TRIED));
  let best: PortNode[] | undefined;
  const choose = (from: number, left: number, off: ReadonlySet<PortNode>): void => {
    if (best && off.size >= best.length) return;
    if (left === 0) {
      best = [...off];
      return;
    }
    for (let i = from; i <= bySlot.length - left; i++) choose(i + 1, left - 1, new Set([...off, ...(bySlot[i] ?? [])]));
  };
  choose(0, n, new Set());
  return best ?? [];
}

export const drivePorts: Rule = {
  id: "drive-ports",
  title: "Every drive has a port and a place",
  protects: "a drive left in its box",
  on: PARTS_ONLY,
  reads: ["board", "card", "drive", "case"],
  run: ({ graph }) => {
    const drives = partsOfKind(graph, "drive");
    const out = [...partsOfKind(graph, "board"), ...partsOfKind(graph, "card")].flatMap(forDrives);
    const slots = out.filter((p) => p.port.family === "m2");
    const sata = out.filter((p) => p.port.family === "sata-data");
    const edge = drives.filter((d) => d.type.leads.some((l) => l.family === "m2"));
    const cabled = drives.filter((d) => d.type.ports.some((p) => p.family === "sata-data"));
    const off = leastDisplaced(
      slots.map((s) => sata.filter((p) => p.part === s.part && s.port.displaces.includes(p.port.id))),
      Math.min(edge.length, slots.length),
    );
    const left = sata.length - off.length;
    const shell = partsOfKind(graph, "case")[0];
    const places = shell?.type.body.mounts.filter((m) => m.takes.includes("drive")) ?? [];
    return [
      ...(edge.length > slots.length
        ? [
            partsFinding("drive-ports", {
              severity: "stop" as const,
              message: `${count(edge.length, "M.2 drive")}, ${count(slots.length, "M.2 slot")}.`,
              parts: edge.slice(slots.length).map((d) => d.id),
              ...(edge[slots.length] ? { swap: edge[slots.length]?.id ?? "" } : {}),
            }),
          ]
        : []),
      ...(cabled.length > left
        ? [
            partsFinding("drive-ports", {
              severity: "stop" as const,
              message: `${count(cabled.length, "SATA drive")}, ${off.length > 0 ? `${left} of ${count(sata.length, "SATA port")}: M.2 drives switch ${off.length === 1 ? "one" : off.length} off wherever they go` : count(sata.length, "SATA port")}.`,
              parts: cabled.slice(left).map((d) => d.id),
              ...(cabled[left] ? { swap: cabled[left].id } : {}),
            }),
          ]
        : []),
      ...(shell && places.length > 0 && cabled.length > places.length
        ? [
            partsFinding("drive-ports", {
              severity: "stop" as const,
              message: `${count(cabled.length, "drive")}, ${count(places.length, "drive place")} in ${shell.type.name}.`,
              parts: [shell.id, ...cabled.slice(places.length).map((d) => d.id)],
              swap: shell.id,
            }),
          ]
        : []),
    ];
  },
};
