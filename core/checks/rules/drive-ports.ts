import { type PartNode, partsOfKind, portNodes } from "../../assembly";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

const forDrives = (part: PartNode) =>
  part.type.ports.some((p) => p.role === "drive-data" && p.flow === "out")
    ? portNodes(part).filter((p) => p.port.role === "drive-data" && p.port.flow === "out")
    : [];

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
    const off = new Set(slots.slice(0, edge.length).flatMap((s) => s.port.displaces));
    const left = sata.filter((p) => !off.has(p.port.id)).length;
    const shell = partsOfKind(graph, "case")[0];
    const places = shell?.type.body.mounts.filter((m) => m.takes.includes("drive")) ?? [];
    return [
      ...(edge.length > slots.length
        ? [
            partsFinding("drive-ports", {
              severity: "stop" as const,
              message: `${edge.length} M.2 drives, ${slots.length} M.2 ${slots.length === 1 ? "slot" : "slots"} on the board.`,
              parts: edge.slice(slots.length).map((d) => d.id),
              ...(edge[slots.length] ? { swap: edge[slots.length]?.id ?? "" } : {}),
            }),
          ]
        : []),
      ...(cabled.length > left
        ? [
            partsFinding("drive-ports", {
              severity: "stop" as const,
              message: `${cabled.length} SATA drives, ${left} of ${sata.length} SATA ports${off.size > 0 ? `: M.2 drives switch ${[...off].join(", ")} off` : ""}.`,
              parts: cabled.slice(left).map((d) => d.id),
              ...(cabled[left] ? { swap: cabled[left].id } : {}),
            }),
          ]
        : []),
      ...(shell && places.length > 0 && cabled.length > places.length
        ? [
            partsFinding("drive-ports", {
              severity: "stop" as const,
              message: `${cabled.length} drives, ${places.length} drive places in ${shell.type.name}.`,
              parts: [shell.id, ...cabled.slice(places.length).map((d) => d.id)],
              swap: shell.id,
            }),
          ]
        : []),
    ];
  },
};
