import { describe, expect, it } from "vitest";
import { DEMO, pluggedDemo, shelf } from "../../tests/fixtures/demo";
import type { Connection } from "../assembly";
import { buildGraph, typeLookup } from "../assembly";
import { powerOn } from ".";

const pull = async (name: string, lead: string) => pluggedDemo(name, (l: Connection[]) => l.filter((c) => c.lead !== lead));
const working = (p: ReturnType<typeof powerOn>) => new Set(p.lines.filter((l) => l.works).map((l) => l.id));

describe.each(DEMO)("%s, every plug pulled in turn", (name) => {
  it("nothing starts to work because a plug was pulled, and the verdict always says something", async () => {
    const whole = await pluggedDemo(name);
    const all = working(powerOn(whole));
    for (const c of whole.connections) {
      const p = powerOn(await pull(name, c.lead));
      expect(p.verdict).toMatch(/^(If you press now|Do not press): .+\.$/);
      for (const id of working(p)) expect([c.lead, id, all.has(id)]).toEqual([c.lead, id, true]);
    }
  });
  it("a pulled fan or pump is still; what does not hang on it turns on", async () => {
    const whole = await pluggedDemo(name);
    const fans = [...whole.leads.values()].filter((l) => ["case-fan", "radiator-fan", "pump"].includes(l.lead.role) && whole.ofLead.has(l.address));
    for (const f of fans) {
      const p = powerOn(await pull(name, f.address));
      expect(p.lines.find((l) => l.id === `turns:${f.address}`)).toMatchObject({ works: false });
      const onIt = new Set(whole.connections.filter((c) => c.port.startsWith(`${f.part.id}:`)).map((c) => c.lead));
      for (const o of fans) {
        if (o === f || onIt.has(o.address)) continue;
        expect([f.address, o.address, p.lines.find((l) => l.id === `turns:${o.address}`)?.works]).toEqual([f.address, o.address, true]);
      }
    }
  });
  it("every line says what it leans on, and each of those, bad alone, breaks that line unless it is spare", async () => {
    const whole = await pluggedDemo(name);
    for (const line of powerOn(whole).lines) {
      if (!line.works) continue;
      expect([line.id, line.leans.length > 0]).toEqual([line.id, true]);
      for (const e of line.leans) {
        const now = powerOn(whole, new Set([e.id])).lines.find((l) => l.id === line.id);
        // What it could do without, alone, changes nothing; all else does.
        expect([line.id, e.id, now?.expected === line.expected]).toEqual([line.id, e.id, line.spare?.includes(e.id) ?? false]);
      }
    }
  });
  it("nothing ticked: nothing at all happens, and nothing is expected to work", async () => {
    const none = await pluggedDemo(name, () => []);
    const p = powerOn(none);
    expect(p.stopsAt).toBe("standby");
    expect([...working(p)]).toEqual([]);
  });
  it("ticked in the order of the file, the stage at which it stops only ever moves on", async () => {
    const whole = await pluggedDemo(name);
    const stages = ["standby", "button", "cpu", "memory", "picture", "fan-warning", undefined];
    let best = -1;
    const types = typeLookup(whole.build, shelf);
    for (let n = 0; n <= whole.connections.length; n += 3) {
      const p = powerOn(buildGraph({ ...whole.build, connections: whole.connections.slice(0, n) }, types));
      const at = stages.indexOf(p.stopsAt);
      expect(at).toBeGreaterThanOrEqual(best);
      best = at;
    }
  });
});
