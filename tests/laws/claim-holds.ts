import type { Graph, PortNode } from "../../core/assembly";
import { family, mate } from "../../core/catalogue";
import type { Claim, Hindrance } from "../../core/claims";
import { leadNeeds, leadToPortMm, plugToPlugMm } from "../../core/routes";

/**
 * Is a claim true of a graph? Written from the connections and the catalogue alone: it shares no code with what makes claims, nor
 * with what says what a plug brings. A kind that is not known here fails.
 */
export function claimHolds(graph: Graph, c: Claim): boolean {
  const w = new Walk(graph);
  const lead = (a: string) => graph.leads.get(a);
  const port = (a: string) => graph.ports.get(a);
  switch (c.kind) {
    case "by-hand":
      return graph.connections.some((x) => x.lead === c.lead && x.state !== "planned");
    case "fixed":
      return graph.connections.some((x) => x.lead === c.lead && x.state === "fixed");
    case "fits":
      return w.fits(c.lead).includes(c.port) || w.plugsFor(c.port).includes(c.lead);
    case "shares": {
      const there = w.loadsOn(c.root).filter((a) => a !== c.lead);
      const zones = new Set([...there, c.lead].map((a) => w.zone(a)));
      return same(there, c.with) && w.rootOfLead(c.lead) === c.root && (c.zone === undefined || (zones.size === 1 && zones.has(c.zone)));
    }
    case "current":
      return near(c.a, sum(w.loadsOn(c.root).map((a) => w.amps(a)))) && near(c.ofA, w.limitA(c.root));
    case "leds":
      return c.leds === sum(w.loadsOn(c.root).map((a) => lead(a)?.lead.load.leds ?? 0));
    case "counted-by-leds":
      return lead(c.lead)?.lead.load.currentA === 0 && near(c.a, c.leds * 0.06) && lead(c.lead)?.lead.load.leds === c.leds;
    case "school-kept":
      return schoolKept(graph, w, c.lead);
    case "school-left":
      return (
        !schoolKept(graph, w, c.lead) &&
        c.there === w.fits(c.lead).filter((a) => asked(graph, c.asks, c.lead, a)).length &&
        c.others.every((o) => hindranceHolds(graph, w, c.lead, o.port, o.because))
      );
    case "signal-only": {
      // Nothing takes its current through this lead.
      const l = lead(c.lead);
      return l?.part.type.ports.every((p) => p.flow === "in" || p.fedBy !== l.lead.id) === true;
    }
    case "button":
      return lead(c.lead)?.lead.ownControl === "button";
    case "low-noise":
      return lead(c.lead)?.part.part.lowNoise === true;
    case "full-speed": {
      const [wants, gives] = [lead(c.lead)?.lead.control ?? "none", port(c.port)?.port.control ?? "none"];
      return gives === "none" || (wants === "voltage" && gives === "pwm");
    }
    case "run": {
      const [l, p] = [lead(c.lead), port(c.port)];
      const at = graph.connections.find((x) => x.lead === c.lead);
      return (
        l !== undefined &&
        p !== undefined &&
        at?.port === c.port &&
        Math.round(leadNeeds(graph, l, p, l.lead.lengthMm + p.port.tailMm).needMm) === c.needMm &&
        !p.part.type.leads.some((x) => x.id === p.port.fedBy)
      );
    }
    case "halves":
      return (graph.connections.find((x) => x.lead === c.lead)?.place?.length ?? 1) === c.halves;
    case "only-kind":
      return w.fits(c.lead).length === 1;
    case "pins":
      return same((graph.connections.find((x) => x.lead === c.lead)?.place ?? []).filter((n) => c.pins.includes(n)).map(String), c.pins.map(String));
    case "outlet": {
      const at = port(graph.connections.find((x) => x.lead === c.lead)?.port ?? "");
      return at?.port.key === c.system && same(c.feeds, w.fed(c.lead.split(":")[0] ?? ""));
    }
    case "one-cable":
      return same(c.feeds, w.fed(c.cable)) && c.feeds.length > 1;
    case "cable-load":
      return near(c.w, sum(w.fed(c.cable).map((a) => w.watts(a)))) && (c.ofW === undefined || c.ofW > 0);
    case "cpu-power":
      return near(c.drawW, w.cpuW()) && (c.needed === 1 || c.drawW > c.plugW - 1e-9);
    case "cpu-enough":
      return near(c.drawW, w.cpuW()) && c.carriesW >= c.drawW - 1e-6 && near(c.carriesW, w.cpuCarriesW()) && w.isEmpty(c.socket);
    case "cpu-short":
      return near(c.drawW, w.cpuW()) && near(c.carriesW, w.cpuCarriesW()) && c.carriesW < c.drawW;
    case "card-power":
    case "adapter":
      return near(c.w, w.watts(c.port));
    case "doubled": {
      const whole = graph.parts.get(c.card)?.type.ratings;
      const on = w.fed(c.cable).filter((a) => port(a)?.part.id === c.card).length;
      return on > 1 && near(c.wholeW, Math.max(0, (whole?.peakW ?? whole?.powerW ?? 0) - 75)) && c.within === c.wholeW <= c.limitW + 1e-9;
    }
    case "main-plug":
      return port(c.port)?.port.role === "board-power";
    case "slot-fastest": {
      const rate = (a: string) => (port(a)?.port.link?.generation ?? 0) * 100 + (port(a)?.port.link?.lanes ?? 0);
      const others = w.fits(c.lead).filter((a) => a !== c.port);
      return (
        others.every((a) => rate(a) <= rate(c.port) || (!c.first && (!w.isEmpty(a) || !w.speaks(c.lead, a) || w.off(a) !== undefined))) ||
        lead(c.lead)?.lead.protocol === "sata"
      );
    }
    case "slot-speed":
      return c.carriesMBs > 0 && lead(c.lead)?.part.type.ratings.readMBs === c.readsMBs;
    case "boots": {
      const drives = [...graph.parts.values()].filter((p) => p.type.kind === "drive" && !p.cable);
      const l = lead(c.lead);
      return l?.part.part.boot === true || !drives.some((d) => d.part.boot && d.id !== l?.part.id);
    }
    case "heatsink":
      return port(c.port)?.port.heatsink === true;
    case "lanes": {
      const p = port(c.port);
      const shares = (p?.port.sharesLanes ?? []).filter((s) => !w.isEmpty(`${p?.part.id}:${s.with}`));
      return (
        c.lanes === Math.min(p?.port.link?.lanes ?? 0, ...shares.map((s) => s.lanes)) &&
        c.wants === lead(c.lead)?.lead.link?.lanes &&
        shares.length === c.sharedWith.length
      );
    }
    case "first-card":
      return (
        lead(c.lead)?.part.type.ratings.hasGraphics === true ||
        ![...graph.parts.values()].some((p) => p.type.kind === "card" && p.type.ratings.hasGraphics)
      );
    case "board-order":
      return [...graph.parts.values()].filter((p) => p.type.kind === "memory").length === c.modules;
    case "cpu-socket":
      return graph.connections.some((x) => x.lead === c.lead && port(x.port)?.port.role === "cpu");
    case "data-port":
      return w.off(c.port) === undefined && graph.connections.some((x) => x.port === c.port);
    case "no-port":
      return w.fits(c.lead).length === 0;
    case "own-control":
      return lead(c.lead)?.lead.ownControl !== undefined;
    case "spare":
      return lead(c.end)?.lead.role === "splitter-in" || port(c.end)?.part.type.kind === "adapter";
    case "no-pins":
    case "middle-blank":
      return w.fits(c.lead).includes(c.block);
    case "hindered":
      return (
        same(
          c.ports.map((p) => p.port),
          w.fits(c.lead),
        ) && c.ports.every((p) => hindranceHolds(graph, w, c.lead, p.port, p.because))
      );
    case "room":
      return w.hasRoom(c.end, c.port) && c.planned === graph.connections.some((x) => x.state === "planned");
    case "no-plug":
      return !w.plugsFor(c.socket).length;
    case "weak-plugs":
      return (
        !w.sharesCpu(c.socket) &&
        w.plugsFor(c.socket).every((a) => w.plugW(a) < c.w) &&
        near(c.strongestW, Math.max(...w.plugsFor(c.socket).map((a) => w.plugW(a))))
      );
    case "plugs-short":
      return w.plugsFor(c.socket).every((a) => w.tooWeak(a, c.socket) || w.shortMm(a, c.socket) > 0) && c.missingMm > 0;
    case "plugs-in-use":
      return w
        .plugsFor(c.socket)
        .every((a) => graph.ofLead.has(a) || w.shortMm(a, c.socket) > 0 || w.tooWeak(a, c.socket) || w.tethered(a, c.socket));
    case "cables-full":
      return c.cables.every((x) => near(x.w, w.wattsWith(x.cable, c.socket, c.w)) && x.w > x.ofW);
    case "no-outlet":
      return c.systems.some((k) =>
        [...graph.ports.values()].every((o) => o.port.family !== "supply-outlet" || o.port.key !== k || !w.isEmpty(o.address)),
      );
    case "data-ports-gone":
      return (
        [...graph.ports.values()].every(
          (p) => p.port.family !== "sata-data" || p.port.flow !== "out" || !w.isEmpty(p.address) || w.off(p.address) !== undefined,
        ) &&
        c.taken.every((a) => !w.isEmpty(a)) &&
        c.off.every((o) => w.off(o.port) === o.by)
      );
    case "no-data-cable":
      return [...graph.parts.values()].every(
        (p) => !p.cable || p.type.leads.some((l) => l.family !== "sata-data") || p.type.leads.some((l) => graph.ofLead.has(`${p.id}:${l.id}`)),
      );
    case "data-cable-short":
      return c.missingMm > 0;
    case "unknown":
      return c.planned === graph.connections.some((x) => x.state === "planned");
  }
}

function hindranceHolds(graph: Graph, w: Walk, lead: string, at: string, h: Hindrance): boolean {
  const l = graph.leads.get(lead);
  const p = graph.ports.get(at);
  if (!l || !p) return false;
  const root = w.root(at);
  const with_ = root === undefined ? [] : [...w.loadsOn(root).filter((a) => a !== lead), lead];
  switch (h.kind) {
    case "taken":
      return h.by.length > 0 && h.by.every((a) => graph.connections.some((x) => x.lead === a && x.port === at));
    case "reach":
      return h.missingMm > 0 && leadToPortMm(graph, l, p) >= 0;
    case "over": {
      const all = sum(with_.map((a) => w.amps(a)));
      const here = sum(with_.filter((a) => a === lead || w.hubPort(a) === w.hubPortOf(at)).map((a) => w.amps(a)));
      return h.a > h.ofA && (near(h.a, all) || near(h.a, here));
    }
    case "over-start":
      return h.a > h.ofA && near(h.a, sum(with_.map((a) => w.startAmps(a))));
    case "leds":
      return h.leds > h.of && h.leds === sum(with_.map((a) => graph.leads.get(a)?.lead.load.leds ?? 0));
    case "pump":
      return l.lead.role === "pump" || h.with.some((a) => graph.leads.get(a)?.lead.role === "pump");
    case "own-kind":
      return p.port.ownKindOnly === true && p.part.type.id !== l.part.type.id;
    case "own-part":
      return w.comesFrom(at, l.part.id);
    case "ring": {
      // What feeds it, and what feeds that: after more steps than there are parts it has come round.
      let here = at;
      for (let n = 0; n <= graph.parts.size; n++) {
        const q = graph.ports.get(here);
        const up = q && graph.connections.find((x) => x.lead === `${q.part.id}:${q.port.fedBy}`);
        if (!up) return false;
        here = up.port;
      }
      return true;
    }
    case "cooler":
      return graph.parts.get(root ?? "")?.type.kind === "cooler" && l.lead.role !== "radiator-fan";
    case "dead":
      return graph.leads.has(h.lead) ? root === undefined : w.isEmpty(h.lead);
    case "off":
      return w.off(at) === h.by;
    case "switches-off":
      return (
        h.ports.length > 0 &&
        h.ports.every(
          (a) => !w.isEmpty(a) && [...p.port.displaces, ...(p.port.displacesWhen ?? []).flatMap((d) => d.ports)].includes(a.split(":")[1] ?? ""),
        )
      );
    case "protocol":
      return !w.speaks(lead, at);
    case "lanes":
      return h.lanes < (l.lead.link?.leastLanes ?? 1);
  }
}

/** The schools, written down once more. */
function schoolKept(graph: Graph, w: Walk, lead: string): boolean {
  const l = graph.leads.get(lead);
  const at = graph.connections.find((x) => x.lead === lead)?.port;
  if (!l || !at) return false;
  const root = w.root(at);
  const hub = root !== undefined && graph.parts.has(root) ? graph.parts.get(root) : undefined;
  const header = graph.ports.get(w.header(at) ?? "")?.port.role;
  const { cooling, caseFans } = graph.build.policy;
  const cpu = header === "cpu-fan" || header === "cpu-optional-fan";
  switch (l.lead.role) {
    case "cpu-fan":
      return cpu;
    case "cooler-speed":
      return header === "cpu-fan" && !hub;
    case "pump":
      return cooling === "pump-first" ? header === "cpu-fan" : header === "pump";
    case "radiator-fan": {
      if (hub?.type.kind === "cooler") return true;
      if (cooling === "fans-follow-cpu") return cpu;
      if (cooling === "pump-first") return header !== "cpu-fan" && header !== "pump";
      const outlets = [...graph.parts.values()].some((p) => p.type.kind === "cooler" && p.type.ports.some((q) => q.flow === "out" && q.fedBy));
      return hub !== undefined && !outlets;
    }
    case "case-fan":
      // With the fans of a radiator on one hub they follow the CPU.
      if (hub !== undefined && cpu && caseFans !== "own-header") return true;
      if (caseFans === "hub") return hub !== undefined && !cpu && header !== "pump";
      if (caseFans === "own-header") return hub === undefined && header === "case-fan";
      return header === "case-fan" || (hub !== undefined && header === undefined);
    default:
      return false;
  }
}

/** Would the school be kept by the lead right on a header of this role? */
/** Is this port one that the shop's way asks for? A powered hub has a socket for its current, which its ports are fed from. */
function asked(graph: Graph, what: "header" | "hub" | undefined, lead: string, port: string): boolean {
  const at = graph.ports.get(port);
  if (!at || !what) return false;
  if (what === "header") return at.part.type.kind === "board" && keptOn(graph, lead, at.port.role);
  return graph.build.policy.caseFans === "hub" && poweredBy(graph, at);
}

/** Is there a socket of its own part at the end of what feeds it? */
function poweredBy(graph: Graph, at: PortNode): boolean {
  for (let p: PortNode | undefined = at, left = 20; p && left > 0; left--) {
    const fedBy: string | undefined = p.port.fedBy;
    if (p.part.type.ports.some((x) => x.id === fedBy && x.flow === "in")) return p.part.type.kind === "hub";
    const above: string | undefined = graph.connections.find((c) => c.lead === `${p?.part.id}:${fedBy}`)?.port;
    p = above === undefined ? undefined : graph.ports.get(above);
  }
  return false;
}

function keptOn(graph: Graph, lead: string, role: string): boolean {
  const { cooling, caseFans } = graph.build.policy;
  const cpu = role === "cpu-fan" || role === "cpu-optional-fan";
  switch (graph.leads.get(lead)?.lead.role) {
    case "cpu-fan":
      return cpu;
    case "cooler-speed":
      return role === "cpu-fan";
    case "pump":
      return role === (cooling === "pump-first" ? "cpu-fan" : "pump");
    case "radiator-fan":
      return cooling === "fans-follow-cpu" ? cpu : cooling === "pump-first" && role !== "cpu-fan" && role !== "pump";
    case "case-fan":
      return caseFans !== "hub" && role === "case-fan";
    default:
      return false;
  }
}

const near = (a: number, b: number) => Math.abs(a - b) < 0.01 || (a === Number.POSITIVE_INFINITY && b === a);
const sum = (list: readonly number[]) => list.reduce((s, n) => s + n, 0);
const same = (a: readonly string[], b: readonly string[]) => a.length === b.length && [...a].sort().join() === [...b].sort().join();

/** Walks along plugs, plainly: one step at a time, never more than forty. */
class Walk {
  constructor(private readonly g: Graph) {}
  private at = (lead: string) => this.g.connections.find((c) => c.lead === lead)?.port;
  isEmpty = (port: string) => !this.g.connections.some((c) => c.port === port);
  /** The hub's part or the header's address on which a port hangs; undefined: on nothing. */
  root(port: string): string | undefined {
    let p = this.g.ports.get(port);
    for (let n = 0; p && n < 40; n++) {
      const from: string | undefined = p.port.fedBy;
      if (from === undefined || p.port.family === "usb2") return p.address;
      if (p.part.type.ports.some((q) => q.id === from)) return p.part.id;
      p = this.g.ports.get(this.at(`${p.part.id}:${from}`) ?? "");
    }
    return undefined;
  }
  rootOfLead = (lead: string) => this.root(this.at(lead) ?? "");
  /** The header that commands what is in a port. */
  header(port: string): string | undefined {
    let p = this.g.ports.get(port);
    for (let n = 0; p && n < 40; n++) {
      const by: string | undefined = p.port.controlledBy ?? (p.part.type.leads.some((l) => l.id === p?.port.fedBy) ? p.port.fedBy : undefined);
      if (by === undefined) return p.port.fedBy === undefined ? p.address : undefined;
      p = this.g.ports.get(this.at(`${p.part.id}:${by}`) ?? "");
    }
    return undefined;
  }
  comesFrom(port: string, part: string): boolean {
    const seen = new Set<string>();
    const todo = [port];
    for (let a = todo.pop(); a !== undefined; a = todo.pop()) {
      const p = this.g.ports.get(a);
      if (!p || seen.has(a)) continue;
      seen.add(a);
      if (p.part.id === part) return true;
      for (const up of [p.port.fedBy, p.port.controlledBy]) if (up !== undefined) todo.push(this.at(`${p.part.id}:${up}`) ?? "");
    }
    return false;
  }
  loadsOn = (root: string): string[] =>
    this.g.connections.flatMap((c) => {
      const l = this.g.leads.get(c.lead);
      return l && l.lead.flow === "in" && l.lead.role !== "splitter-in" && this.root(c.port) === root ? [c.lead] : [];
    });
  zone(lead: string): string | undefined {
    const l = this.g.leads.get(lead);
    if (!l) return undefined;
    if (l.part.part.zone) return l.part.part.zone;
    if (["cpu-fan", "radiator-fan", "cooler-speed"].includes(l.lead.role)) return "cpu";
    if (l.lead.role === "pump") return "pump";
    const shell = [...this.g.parts.values()].find((p) => p.type.kind === "case");
    return shell?.type.body.mounts.find((m) => m.id === l.part.part.mount)?.region ?? "case";
  }
  amps(lead: string): number {
    const l = this.g.leads.get(lead)?.lead;
    if (!l) return 0;
    return l.load.currentA > 0 || !l.family.startsWith("light") ? l.load.currentA : (l.load.leds ?? 0) * 0.06;
  }
  startAmps(lead: string): number {
    const l = this.g.leads.get(lead)?.lead;
    return l?.family.startsWith("fan") ? (l.load.startCurrentA ?? (l.load.currentA * 2.2) / 1.5) : 0;
  }
  limitA(root: string): number {
    const hub = this.g.parts.get(root);
    if (hub) return hub.type.ports.find((p) => p.role === "device-power")?.limit.currentA ?? Number.NaN;
    const p = this.g.ports.get(root)?.port;
    return p?.limit.currentA ?? (p?.family.startsWith("light") ? 3 : p?.role === "pump" ? 2 : 1);
  }
  hubPortOf(port: string): string | undefined {
    let p = this.g.ports.get(port);
    for (let n = 0; p && n < 40; n++) {
      const from: string | undefined = p.port.fedBy;
      if (from === undefined || p.part.type.ports.some((q) => q.id === from)) return p.address;
      p = this.g.ports.get(this.at(`${p.part.id}:${from}`) ?? "");
    }
    return undefined;
  }
  hubPort = (lead: string) => this.hubPortOf(this.at(lead) ?? "");
  fed = (cable: string): string[] =>
    this.g.connections.filter((c) => c.lead.startsWith(`${cable}:`) && !c.lead.includes(":root-")).map((c) => c.port);
  cpuW = (): number => {
    const cpu = [...this.g.parts.values()].find((p) => p.type.kind === "cpu")?.type.ratings;
    return cpu?.peakW ?? cpu?.powerW ?? 0;
  };
  private readonly half = (f: string) => (f === "cpu-4" ? 0.5 : 1);
  cpuCarriesW = (): number =>
    sum(
      this.g.connections.flatMap((c) => {
        const p = this.g.ports.get(c.port)?.port;
        const l = this.g.leads.get(c.lead)?.lead;
        return p?.role === "cpu-power" && l?.family.startsWith("cpu")
          ? [this.g.build.policy.cpuPlugW * Math.min(this.half(p.family), this.half(l.family))]
          : [];
      }),
    );
  watts(socket: string): number {
    const p = this.g.ports.get(socket);
    if (!p) return 0;
    if (p.part.type.kind === "adapter") {
      const out = p.part.type.leads.find((l) => l.flow === "out");
      const to = out && this.at(`${p.part.id}:${out.id}`);
      return to ? this.watts(to) / p.part.type.ports.filter((q) => q.flow === "in").length : 0;
    }
    if (p.port.role === "cpu-power") {
      const c = this.g.connections.find((x) => x.port === socket);
      const there = this.g.leads.get(c?.lead ?? "")?.lead.family;
      const plug = there?.startsWith("cpu") ? there : undefined;
      const carries = this.cpuCarriesW();
      if (plug && carries > 0) return (this.cpuW() * this.g.build.policy.cpuPlugW * Math.min(this.half(p.port.family), this.half(plug))) / carries;
      return carries > 0 || there ? 0 : this.cpuW();
    }
    const r = p.part.type.ratings;
    if (p.part.type.ports.some((q) => q.flow === "out" && q.fedBy === p.port.id))
      return (
        (p.port.load?.powerW ?? 0) +
        sum(this.loadsOn(p.part.id).map((a) => this.amps(a) * (this.g.leads.get(a)?.lead.family === "light-5v" ? 5 : 12)))
      );
    if (p.port.load?.powerW !== undefined) return p.port.load.powerW;
    if (p.port.role === "graphics-power")
      return Math.max(0, (r.peakW ?? r.powerW ?? 0) - 75) / p.part.type.ports.filter((q) => q.role === "graphics-power").length;
    return r.peakW ?? r.powerW ?? 0;
  }
  sharesCpu = (socket: string) => this.g.ports.get(socket)?.port.role === "cpu-power" && this.cpuW() > 0;
  /** A plug that carries less than the socket takes; the CPU's plugs share, so that none of them is. */
  tooWeak = (lead: string, socket: string) => !this.sharesCpu(socket) && this.plugW(lead) < this.watts(socket) - 1e-9;
  /** What a cable would carry with one more socket on it; a CPU socket takes its part from the CPU's other plugs. */
  wattsWith(cable: string, socket: string, more: number): number {
    if (!this.sharesCpu(socket)) return more + sum(this.fed(cable).map((a) => this.watts(a)));
    const before = this.cpuCarriesW();
    const added = this.g.build.policy.cpuPlugW * this.half(this.g.ports.get(socket)?.port.family ?? "");
    return (
      (this.cpuW() * added) / (before + added) +
      sum(this.fed(cable).map((a) => (this.sharesCpu(a) ? (this.watts(a) * before) / (before + added) : this.watts(a))))
    );
  }
  fits = (lead: string): string[] => {
    const l = this.g.leads.get(lead);
    return [...this.g.ports.values()]
      .filter(
        (p) =>
          l &&
          p.port.flow === "out" &&
          p.part !== l.part &&
          ["fits", "loss"].includes(mate(l.lead.family, p.port.family, l.lead.key, p.port.key).outcome),
      )
      .map((p) => p.address);
  };
  plugsFor = (socket: string): string[] => {
    const p = this.g.ports.get(socket);
    return [...this.g.leads.values()]
      .filter((l) => p && l.lead.flow === "out" && ["fits", "loss"].includes(mate(l.lead.family, p.port.family, l.lead.key, p.port.key).outcome))
      .map((l) => l.address);
  };
  plugW(lead: string): number {
    const l = this.g.leads.get(lead)?.lead;
    const SENSE: Record<string, number> = { "gnd gnd": 600, "open gnd": 450, "gnd open": 300, tied: 150, "open open": 0 };
    const own = l?.limit?.powerW ?? family(l?.family ?? "sata-power").rating?.powerW ?? Number.POSITIVE_INFINITY;
    return l?.limit?.sense === undefined ? own : Math.min(own, SENSE[l.limit.sense] ?? 0);
  }
  shortMm(lead: string, socket: string): number {
    const [l, p] = [this.g.leads.get(lead), this.g.ports.get(socket)];
    if (!l || !p || !l.part.cable) return 0;
    return leadToPortMm(this.g, l, p) - l.lead.lengthMm - p.port.tailMm;
  }
  /** By how much a lead that is no cable falls short of a port of the board, mm: by its own length and the way there. */
  tooShortMm(lead: string, at: string): number {
    const [l, p] = [this.g.leads.get(lead), this.g.ports.get(at)];
    if (!l || !p || l.part.cable || l.loom === "seat" || l.lead.family === "m2" || p.part.type.kind !== "board") return 0;
    return Math.ceil(leadToPortMm(this.g, l, p) - l.lead.lengthMm - p.port.tailMm);
  }
  tethered(lead: string, socket: string): boolean {
    const [l, p] = [this.g.leads.get(lead), this.g.ports.get(socket)];
    return (l?.part.cable?.cable.ends ?? []).some((e) => {
      const at = this.g.ports.get(this.at(`${l?.part.id}:${e.id}`) ?? "");
      return (
        at !== undefined &&
        p !== undefined &&
        plugToPlugMm(this.g, at, p) > Math.abs((l?.lead.lengthMm ?? 0) - e.atMm) + p.port.tailMm + at.port.tailMm
      );
    });
  }
  off(port: string): string | undefined {
    const p = this.g.ports.get(port);
    for (const q of p?.part.type.ports ?? []) {
      const c = this.g.connections.find((x) => x.port === `${p?.part.id}:${q.id}`);
      if (!c) continue;
      const says = this.g.leads.get(c.lead)?.lead.protocol;
      const when = (q.displacesWhen ?? []).filter((d) => says === undefined || d.protocol === says).flatMap((d) => d.ports);
      if ([...q.displaces, ...when].includes(p?.port.id ?? "")) return `${p?.part.id}:${q.id}`;
    }
    return undefined;
  }
  speaks = (lead: string, port: string): boolean => {
    const says = this.g.leads.get(lead)?.lead.protocol;
    const hears = this.g.ports.get(port)?.port.protocols;
    return says === undefined || hears === undefined || hears.includes(says);
  };
  /** Nothing visible keeps this end out of that port (or that plug out of this socket). */
  hasRoom(end: string, at: string): boolean {
    if (this.g.ports.has(at) && this.g.leads.has(end)) {
      const p = this.g.ports.get(at);
      const places = p?.port.places ?? family(p?.port.family ?? "fan-4").places;
      return (
        this.fits(end).includes(at) &&
        this.g.connections.filter((c) => c.port === at).length < places &&
        this.off(at) === undefined &&
        this.tooShortMm(end, at) <= 0
      );
    }
    if (this.g.leads.has(at)) return this.plugsFor(end).includes(at) && !this.g.ofLead.has(at) && this.shortMm(at, end) <= 0;
    return this.isEmpty(at) && this.isEmpty(end) && this.off(at) === undefined;
  }
}
