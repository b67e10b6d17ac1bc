import { type Graph, type PartNode, partsOfKind } from "../assembly";
import { type Clearance, clearance, nameOf } from "./clearance";
import { fanSeats } from "./fans";

/** Where the drive cage stands, what it leaves for the supply in mm, and the drives in it. */
function cageOf(graph: Graph, shell: PartNode): { label: string; has: number | undefined; drives: PartNode[] } {
  const b = shell.type.body;
  const drives = partsOfKind(graph, "drive");
  if (b.cagePlaces.length > 0) {
    const place = shell.part.cage === "out" ? undefined : (b.cagePlaces.find((p) => p.id === shell.part.cage) ?? b.cagePlaces[0]);
    const inCages = new Set(b.cagePlaces.flatMap((p) => p.mounts));
    return place
      ? {
          label: place.label,
          has: place.maxSupplyMm ?? b.maxSupplyWithCageMm,
          drives: drives.filter((d) => place.mounts.includes(d.part.mount ?? "")),
        }
      : { label: "", has: b.maxSupplyMm, drives: drives.filter((d) => inCages.has(d.part.mount ?? "")) };
  }
  const inCage = drives.filter((d) => {
    const m = b.mounts.find((x) => x.id === d.part.mount);
    return m?.takes.includes("drive") && m.region === "bottom";
  });
  if (shell.part.cage === "out") return { label: "", has: b.maxSupplyMm ?? b.maxSupplyWithCageMm, drives: inCage };
  // It stays in until somebody takes it out, whether a drive is in it or not.
  const hasCage =
    b.maxSupplyWithCageMm !== undefined ||
    (b.bodies ?? []).some((x) => x.kind === "cage") ||
    b.mounts.some((m) => m.takes.includes("drive") && m.region === "bottom");
  return { label: hasCage ? "the drive cage" : "", has: b.maxSupplyWithCageMm ?? b.maxSupplyMm, drives: inCage };
}

/** Drives whose mounts are in a cage that is out, or that stands elsewhere. */
export function drivesWithoutCage(graph: Graph): PartNode[] {
  const shell = partsOfKind(graph, "case")[0];
  if (!shell?.part.cage) return [];
  const { cagePlaces } = shell.type.body;
  if (shell.part.cage === "out") return cageOf(graph, shell).drives;
  const elsewhere = new Set(cagePlaces.filter((p) => p.id !== shell.part.cage).flatMap((p) => p.mounts));
  return partsOfKind(graph, "drive").filter((d) => elsewhere.has(d.part.mount ?? ""));
}

/** Have its cables plugs at the supply's end? */
const isModular = (supply: PartNode): boolean => supply.type.ports.some((p) => p.role === "outlet");

export function supplies(graph: Graph, shell: PartNode): Clearance[] {
  const { label, has, drives } = cageOf(graph, shell);
  return partsOfKind(graph, "supply").flatMap((s) => {
    const need = s.type.body.depthMm;
    if (need === undefined || has === undefined) return [];
    return [
      clearance({
        id: `supply-length:${s.id}`,
        what: "Supply length",
        parts: [s.id, ...drives.map((d) => d.id)],
        need,
        has,
        subject: `${nameOf(s)} (${need} mm)`,
        room: label === "" ? "the room for it, plugs included" : `beside ${label}, plugs included`,
        ifIgnored: isModular(s)
          ? `Its modular plugs stand against ${label === "" ? "what is in front of them" : label}; forcing them bends pins.`
          : "It does not go in, or its cables are crushed where they come out.",
      }),
    ];
  });
}

/** Fans outside the front frame, in the gap behind the panel. */
export function behindThePanel(graph: Graph, shell: PartNode): Clearance[] {
  const has = shell.type.body.frontGapMm;
  const outer = fanSeats(graph).filter((f) => f.mount.region === "front" && !f.inside);
  if (has === undefined || outer.length === 0) return [];
  const need = Math.max(...outer.map((f) => f.depthMm));
  return [
    clearance({
      id: "front-gap",
      what: "Fans behind the front panel",
      parts: outer.map((f) => f.part.id),
      need,
      has,
      many: outer.length > 1,
      subject: `${outer.length === 1 ? nameOf(outer[0]?.part ?? shell) : `${outer.length} front fans`} outside the frame (${need} mm)`,
      room: "between frame and front panel",
      ifIgnored: "The panel does not close, or rubs on the blades.",
    }),
  ];
}
