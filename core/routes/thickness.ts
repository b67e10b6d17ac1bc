import type { LeadNode } from "../assembly";
import { family } from "../catalogue";
import { wireDiameterMm } from "../power";

/** Insulation of a hook-up wire of 300 V, mm all round (UL 1007 has 0.38 at least; from memory). */
const INSULATION_MM = 0.4;
/** A bundle of n round wires is so many times √n of one thick (harness rule of thumb, common practice; the closest packing of circles tends to 1.05). */
const BUNDLE = 1.2;
/** Leads behind the tray are pressed flat, to so wide a band, mm (common practice). */
const BAND_MM = 50;

/** Cables that come as one piece: thickness in mm (common practice). */
const PIECE_MM: Readonly<Record<string, number>> = { "usb3-20": 6.5, "usbc-20": 5.5, usb2: 4.5, "hd-audio": 4, "sata-data": 5 };

/** AWG of the wires of a plug (ATX power supply design guide, PCI Express CEM, from memory; small leads common practice). */
const awgOf = (familyId: string): number =>
  familyId === "gfx-16"
    ? 16
    : ["fan-4", "fan-3"].includes(familyId)
      ? 26
      : familyId.startsWith("light")
        ? 24
        : familyId.startsWith("panel")
          ? 28
          : 18;

/** Thickness of a bundle of round leads, mm: 1.2 × the root of the sum of their squares. */
export const bundleMm = (each: readonly number[]): number =>
  each.length === 1 ? (each[0] ?? 0) : BUNDLE * Math.sqrt(each.reduce((n, d) => n + d * d, 0));

/** Thickness of one lead, mm. */
export function leadMm(l: LeadNode): number {
  const id = l.lead.family;
  const piece = PIECE_MM[id];
  if (piece !== undefined) return piece;
  const wires = l.lead.positions?.filter((p) => p !== "blank").length ?? family(id).pins.length;
  return bundleMm(Array.from({ length: Math.max(1, wires) }, () => wireDiameterMm(awgOf(id)) + 2 * INSULATION_MM));
}

/** How far leads that lie together behind the tray stand off it, mm: pressed flat to a band, never thinner than the thickest of them. */
export const flatMm = (each: readonly number[]): number => {
  const round = bundleMm(each);
  return each.length === 0 ? 0 : Math.max(...each, ((Math.PI / 4) * round * round) / BAND_MM);
};

/** Cross-section of a lead with the air in its bundle, mm². */
export const areaMm2 = (mm: number): number => (Math.PI / 4) * mm * mm;
