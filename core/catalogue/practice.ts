import type { Lead, Limit, Load, Port } from "./connectors";
import { family } from "./families";

/** Values that hold where the catalogue entry gives none. Standing is said beside each. */
export const PRACTICE = {
  /** Starting over steady current of a fan. Intel 4-wire fan specification 1.3: 2.2 A against 1.5 A (from memory). */
  startRatio: 2.2 / 1.5,
  /** Ordinary board fan header, common practice. */
  fanHeaderA: 1,
  /** Pump or high-current header, common practice (2 to 3 A). */
  pumpHeaderA: 2,
  /** Addressable and plain lighting header, common practice. */
  lightHeaderA: 3,
  /** One LED at full white where nothing else is known: 3 × 20 mA (data sheets of the common part, from memory). */
  ledA: 0.06,
  /** USB 2.0: 0.5 A a port, USB-IF (from memory). */
  usb2PortA: 0.5,
  /** Graphics cable with two plugs, common practice. */
  graphicsCableW: 225,
  /** SATA string in all, common practice. */
  sataStringA: 8,
} as const;

/** Steady current of a lead in A: its own figure; LEDs without one count 60 mA each (3 × 20 mA, data sheets of the common part, from memory). */
export function loadCurrentA(lead: Lead): number {
  if (lead.load.currentA > 0 || family(lead.family).loom !== "lighting") return lead.load.currentA;
  return (lead.load.leds ?? 0) * PRACTICE.ledA;
}

/** True when the current of these lights is not known from their data, but counted by LEDs. */
export const countedByLeds = (lead: Lead): boolean => lead.load.currentA === 0 && loadCurrentA(lead) > 0;

/** Starting current of a load in A: its own figure, else 2.2/1.5 of the steady current. */
export function startingCurrentA(load: Load): number {
  return load.startCurrentA ?? load.currentA * PRACTICE.startRatio;
}

/** Limits of a port with the practice values filled in. */
export function headerLimit(port: Port): Limit {
  const steady = port.limit.currentA ?? defaultCurrentA(port);
  return {
    ...port.limit,
    ...(steady === undefined ? {} : { currentA: steady }),
    ...(steady !== undefined && family(port.family).loom === "fans"
      ? { startCurrentA: port.limit.startCurrentA ?? steady * PRACTICE.startRatio }
      : {}),
  };
}

function defaultCurrentA(port: Port): number | undefined {
  if (port.family === "usb2") return PRACTICE.usb2PortA * 2;
  if (port.fedBy) return undefined;
  if (port.family === "light-5v" || port.family === "light-12v") return PRACTICE.lightHeaderA;
  if (port.family === "fan-4" || port.family === "fan-3") return port.role === "pump" ? PRACTICE.pumpHeaderA : PRACTICE.fanHeaderA;
  return undefined;
}

/** Speed control that a fan port really gives to a lead: what is lost, or nothing. */
export function controlLost(lead: Lead, port: Port): boolean {
  const wants = lead.control ?? "none";
  const gives = port.control ?? "none";
  if (wants === "none" || wants === undefined) return false;
  if (gives === "both") return false;
  if (gives === "none") return true;
  if (wants === "both") return false;
  // A PWM fan still follows the voltage of a voltage header; a 3-wire fan on a PWM-only header runs at full speed.
  return wants === "voltage" && gives === "pwm";
}
