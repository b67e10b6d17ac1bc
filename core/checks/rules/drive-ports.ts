import { type PartNode, type PortNode, partsOfKind, portNodes } from "../../assembly";
import { displacedBy } from "../../brings";
import type { Lead } from "../../catalogue";
import { speaks } from "../../wiring";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

const forDrives = (part: PartNode) =>
  part.type.ports.some((p) => p.role === "drive-data" && p.flow === "out")
    ? portNodes(part).filter((p) => p.port.role === "drive-data" && p.port.flow === "out")
    : [];

const count = (n: number, one: string) => `${n} ${one}${n === 1 ? "" : "s"}`;

/** Choices of slots that are tried at most: no board has so many. */
const MOST_TRIED = 20_000;

interface Placing {
  /** Drives that find a slot which speaks with them, where most do. */
  placed: number;
  /** SATA ports that are off then, where they are fewest; none is counted where not every choice was tried. */
  off: number;
}

/** M.2 drives in slots: as many as can be, and then with as few SATA ports switched off as can be, by what each slot does. */
function inSlots(drives: readonly Lead[], slots: readonly PortNode[], sata: readonly PortNode[]): Placing {
  // Drives that speak alike can change places.
  const kinds = [...new Set(drives.map((d) => d.protocol))];
  const left = kinds.map((protocol) => drives.filter((d) => d.protocol === protocol).length);
  const takes = (slot: PortNode) => kinds.flatMap((protocol, i) => (speaks({ protocol }, slot.port) ? [i] : []));
  // What a drive would switch off of which nobody says how it speaks is not certain.
  const offBy = (slot: PortNode, protocol: Lead["protocol"]) => {
    const ids = protocol === undefined ? slot.port.displaces : displacedBy(slot.port, { protocol });
    return sata.filter((p) => p.part === slot.part && ids.includes(p.port.id));
  };
  // Those that take one kind only come first: so the first choice places as many as can be.
  const ranked = [...slots].sort((x, y) => takes(x).length - takes(y).length || offBy(x, kinds[0]).length - offBy(y, kinds[0]).length);
  let best: Placing = { placed: 0, off: 0 };
  let tried = 0;
  const choose = (at: number, placed: number, off: ReadonlySet<PortNode>): void => {
    if (tried++ > MOST_TRIED) return;
    const most =
      placed +
      Math.min(
        ranked.length - at,
        left.reduce((s, n) => s + n, 0),
      );
    if (most < best.placed || (most === best.placed && best.placed > 0 && off.size >= best.off)) return;
    const slot = ranked[at];
    if (placed > best.placed || (placed === best.placed && off.size < best.off)) best = { placed, off: off.size };
    if (!slot) return;
    for (const i of takes(slot)) {
      if ((left[i] ?? 0) === 0) continue;
      left[i] = (left[i] ?? 0) - 1;
      choose(at + 1, placed + 1, new Set([...off, ...offBy(slot, kinds[i])]));
      left[i] = (left[i] ?? 0) + 1;
    }
    choose(at + 1, placed, off);
  };
  choose(0, 0, new Set());
  return tried > MOST_TRIED ? { ...best, off: 0 } : best;
}

const SPEECH = { nvme: "NVMe", sata: "SATA" } as const;

export const drivePorts: Rule = {
  id: "drive-ports",
  title: "Every drive has a port and a place",
  protects: "a drive left in its box",
  on: PARTS_ONLY,
  rests: { board: ["m2", "sata"], drive: ["form", "protocol"] },
  reads: ["board", "card", "drive", "case"],
  run: ({ graph }) => {
    const drives = partsOfKind(graph, "drive");
    const out = [...partsOfKind(graph, "board"), ...partsOfKind(graph, "card")].flatMap(forDrives);
    const slots = out.filter((p) => p.port.family === "m2");
    const sata = out.filter((p) => p.port.family === "sata-data");
    const edge = drives.filter((d) => d.type.leads.some((l) => l.family === "m2"));
    const cabled = drives.filter((d) => d.type.ports.some((p) => p.family === "sata-data"));
    const leads = edge.flatMap((d) => d.type.leads.filter((l) => l.family === "m2"));
    const { placed, off } = inSlots(leads, slots, sata);
    const left = sata.length - off;
    // More of one kind than slots that take it, though there are slots enough.
    const short = (["nvme", "sata"] as const).flatMap((kind) => {
      const mine = edge.filter((d) => d.type.leads.some((l) => l.family === "m2" && l.protocol === kind));
      const take = slots.filter((s) => speaks({ protocol: kind }, s.port)).length;
      return edge.length <= slots.length && placed < edge.length && mine.length > take ? [{ kind, mine, take }] : [];
    });
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
      ...short.map(({ kind, mine, take }) =>
        partsFinding("drive-ports", {
          severity: "stop" as const,
          message: `${count(mine.length, "M.2 drive")} for ${SPEECH[kind]}, ${count(take, "M.2 slot")} for it.`,
          parts: mine.slice(take).map((d) => d.id),
          swap: mine[take]?.id ?? "",
        }),
      ),
      ...(cabled.length > left
        ? [
            partsFinding("drive-ports", {
              severity: "stop" as const,
              message: `${count(cabled.length, "SATA drive")}, ${off > 0 ? `${left} of ${count(sata.length, "SATA port")}: M.2 drives switch ${off === 1 ? "one" : off} off wherever they go` : count(sata.length, "SATA port")}.`,
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
