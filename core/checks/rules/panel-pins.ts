import { isSwitch, panelPinout } from "../../brings";
import { ALWAYS, finding, joints, type Rule } from "../rule";

/** Front-panel plugs on the pins they are for; LEDs the right way round. */
export const panelPins: Rule = {
  id: "panel-pins",
  title: "Front-panel plugs sit on their own pins",
  protects: "the power button and the lights",
  on: ALWAYS,
  run: ({ graph }) =>
    joints(graph).flatMap(({ c, lead, port }) => {
      if (lead.lead.family !== "panel-loose" || port.port.family !== "panel-block" || !c.place) return [];
      const signals = panelPinout(port.port);
      const wires = lead.lead.positions ?? [];
      const on = c.place.map((n) => signals.get(n) ?? "blank");
      const sameSet = [...wires].sort().join() === [...on].sort().join();
      const straight = wires.every((w, i) => w === on[i]);
      if (straight || (sameSet && wires.every(isSwitch))) return [];
      const ends = [lead.address, port.address];
      if (sameSet)
        return [
          finding(
            "panel-pins",
            "warn",
            `${lead.tag} (${lead.name}) is the wrong way round on pins ${c.place.join(" and ")}: the LED stays dark. Turn the plug.`,
            ends,
            { kind: "move", label: `Turn ${lead.tag}`, lead: lead.address, port: port.address, place: [...c.place].reverse() },
          ),
        ];
      const button = wires.some((w) => w.startsWith("power switch"));
      return [
        finding(
          "panel-pins",
          button ? "stop" : "warn",
          `${lead.tag} (${lead.name}) is on pins ${c.place.join(" and ")}, which are ${[...new Set(on)].join(" and ")}.${button ? " The button does nothing." : ""} Move it.`,
          ends,
          { kind: "unplug", label: `Take ${lead.tag} out`, lead: lead.address },
        ),
      ];
    }),
};
