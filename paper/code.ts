import { toSVG } from "bwip-js/node";

/** A code as a path: how wide and high it is in its own units, and what is black. Empty text has none. */
export interface Code {
  w: number;
  h: number;
  d: string;
}

/** A QR code (ISO/IEC 18004, by a package); it bears a scratch over a seventh of it. */
export function qrOf(text: string): Code {
  const svg = toSVG({ bcid: "qrcode", text, scale: 1, paddingwidth: 0, paddingheight: 0 });
  const [, w, h] = /viewBox="0 0 ([\d.]+) ([\d.]+)"/.exec(svg) ?? [];
  const d = [...svg.matchAll(/<path d="([^"]+)"/g)].map((m) => m[1]).join("");
  return { w: Number(w), h: Number(h), d };
}
