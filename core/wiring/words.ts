import type { LeadNode } from "../assembly";

/** A current in words, to a hundredth. */
export const amps = (a: number) => `${Number(a.toFixed(2))} A`;

/** A fan's lead that is plugged with the resistor between that came with the fan. */
export const throughLowNoise = (l: LeadNode): boolean => l.part.part.lowNoise === true && l.loom === "fans" && l.lead.flow === "in";
