import { family, type Lead, type Port } from "../catalogue";

/** Signal of every pin of a panel block: the board's own order where it has one, else the standard's. */
export function panelPinout(port: Port): Map<number, string> {
  const standard = new Map(family("panel-block").pins.map((p) => [p.pin, p.signal]));
  for (const [pin, signal] of Object.entries(port.pinout ?? {})) standard.set(Number(pin), signal);
  return standard;
}

/** Switches work either way round; LEDs do not. */
export const isSwitch = (signal: string) => signal.startsWith("power switch") || signal.startsWith("reset");
const contact = (signal: string) => signal.replace(/ ground$/, "");

/** Does a plug's wire belong on this pin? The two contacts of a switch may change places. */
function belongs(wire: string, pin: string): boolean {
  if (wire === pin) return true;
  return isSwitch(wire) && contact(wire) === contact(pin);
}

/**
 * Every way a loose plug goes onto the block: pins in the order of the plug's positions.
 * Positions lie side by side in one row; a position without a wire must meet a blank.
 */
export function panelPlaces(lead: Lead, port: Port): number[][] {
  const signals = panelPinout(port);
  const wires = lead.positions ?? [];
  if (wires.length === 0) return [];
  const out: number[][] = [];
  for (const row of family("panel-block").order) {
    for (let at = 0; at + wires.length <= row.length; at++) {
      const pins = row.slice(at, at + wires.length).map((p) => p ?? 0);
      for (const order of wires.length > 1 ? [pins, [...pins].reverse()] : [pins]) {
        const good = wires.every((w, i) => {
          const pin = signals.get(order[i] ?? 0) ?? "blank";
          return w === "blank" ? pin === "blank" : belongs(w, pin);
        });
        if (good) out.push(order);
      }
    }
  }
  return out.sort((a, b) => (a[0] ?? 0) - (b[0] ?? 0));
}

/** Does the board have this function at all? */
export function boardHas(lead: Lead, port: Port): boolean {
  const signals = [...panelPinout(port).values()];
  return (lead.positions ?? []).filter((w) => w !== "blank").every((w) => signals.some((s) => belongs(w, s)));
}

/** Does a front-panel plug sit on pins that do what its wires are for? A ready block fits as one piece. */
export function rightPins(lead: Lead, port: Port, place: readonly number[] | undefined): boolean {
  if (port.family !== "panel-block" || lead.family === "panel-block") return true;
  if (!place) return false;
  return panelPlaces(lead, port).some((p) => p.length === place.length && p.every((n, i) => n === place[i]));
}
