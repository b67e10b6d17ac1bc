import { type PartNode, type PortNode, wholeParts } from "../../assembly";
import { headerLimit, type Lead, loadCurrentA } from "../../catalogue";
import { amps } from "../../wiring";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

const VOLTS = [
  ["light-5v", "5 V"],
  ["light-12v", "12 V"],
] as const;

export const lightCapacity: Rule = {
  id: "light-capacity",
  title: "The headers carry the lights",
  protects: "colours that fade and headers that shut down",
  on: PARTS_ONLY,
  rests: { board: ["led5", "led12"], lighting: ["leds"] },
  reads: ["board", "lighting", "hub", "splitter", "extension", "fan", "cooler", "card", "case", "memory"],
  run: ({ graph }) =>
    VOLTS.flatMap(([family, word]) => {
      const lights: { part: PartNode; lead: Lead }[] = [];
      for (const part of wholeParts(graph))
        for (const lead of part.type.leads) if (lead.family === family && lead.role === "light") lights.push({ part, lead });
      if (lights.length === 0) return [];
      const sources = [...graph.ports.values()].filter(
        (p) => p.port.family === family && p.port.flow === "out" && p.part.type.kind !== "splitter" && p.part.type.kind !== "extension",
      );
      const board = sources.filter((p) => p.part.type.kind === "board");
      const hub = sources.filter((p) => p.part.type.kind === "hub");
      const ofPort = (p: PortNode) => headerLimit(p.port).currentA ?? 0;
      const hubs = new Set(hub.map((p) => p.part));
      const room =
        board.reduce((s, p) => s + ofPort(p), 0) +
        [...hubs].reduce((s, h) => s + (h.type.ports.find((q) => q.role === "device-power")?.limit.currentA ?? 0), 0);
      const draws = lights.reduce((s, l) => s + loadCurrentA(l.lead), 0);
      const leds = lights.reduce((s, l) => s + (l.lead.load.leds ?? 0), 0);
      const most = Math.max(0, ...board.map(ofPort), ...hub.map(ofPort));
      const heavy = lights.filter((l) => loadCurrentA(l.lead) > most);
      const numbers = `${leds} LEDs draw ${amps(draws)}; ${board.length} ${board.length === 1 ? "header" : "headers"} of ${word}${hubs.size > 0 ? ` and ${hubs.size} powered ${hubs.size === 1 ? "hub" : "hubs"}` : ""} give ${amps(room)}`;
      if (sources.length === 0 || draws > room + 1e-9)
        return [
          partsFinding("light-capacity", {
            severity: "warn",
            message: `${word} lights: ${numbers}.`,
            parts: [...new Set(lights.map((l) => l.part.id))],
            ifIgnored: "Colours fade at the far end, or the header shuts down.",
            ...(lights[0] ? { swap: lights[0].part.id } : {}),
          }),
        ];
      if (heavy[0])
        return [
          partsFinding("light-capacity", {
            severity: "stop",
            message: `${heavy[0].part.part.label ?? heavy[0].part.type.name} draws ${amps(loadCurrentA(heavy[0].lead))} alone; no ${word} header or hub port gives more than ${amps(most)}.`,
            parts: heavy.map((l) => l.part.id),
            swap: heavy[0].part.id,
          }),
        ];
      return [];
    }),
};
