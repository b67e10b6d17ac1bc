import { asPlugged, cpuCoolers, type Graph, type LeadNode, mateOf, type PortNode, partsOfKind, withConnections } from "../assembly";
import { hungOn, panelPinout } from "../brings";
import { cpuDrawW, cpuFilledW } from "../power";
import { list, upper } from "../words";
import { type Expectation, type Group, leansOf, NOISE, NOT_REACHED, type PowerOn } from "./expectation";
import { driveLines, memoryLines } from "./memory-and-drives";
import {
  boardPath,
  boardSockets,
  controlPath,
  type Element,
  either,
  fails,
  join,
  jointElement,
  leadPath,
  monitorPath,
  type Path,
  powerPath,
  seatPath,
  type World,
} from "./paths";
import { speedSignal } from "./speed";

/**
 * What is lit, turns, stops and reads, computed from what is plugged; `bad` pretends that elements are bad. A machine that is only started
 * to see that it does is not `loaded`.
 */
export function powerOn(whole: Graph, bad: ReadonlySet<string> = new Set(), loaded = true, words?: ReadonlyMap<string, string>): PowerOn {
  const graph = asPlugged(whole);
  const world: World = { graph, bad, ...(words ? { words } : {}) };
  const damage = [...damageOf(graph), ...foreignCables(world)];
  const board = boardPath(world);
  const short = partsOfKind(graph, "board").flatMap((b) => fails(world, "short", b.id) ?? [])[0];
  const pressed = join(world, [board, buttonPath(world)]);
  const unfed = withoutCpuPlug(world);
  const cause = short ?? (unfed && !unfed.path.ok && unfed.does === "nothing" ? unfed.path.missing : undefined);
  const button: Path = cause === undefined || !pressed.ok ? pressed : { ...pressed, ok: false, missing: cause };
  const runs = button.ok;
  const lines: Expectation[] = [];
  const add = (id: string, group: Group, what: string, path: Path, words: [string, string], good = "", runsOnly = true) => {
    const works = path.ok && (!runsOnly || runs);
    const missing = !path.ok ? path.missing : runsOnly && !runs ? (button.missing ?? "the machine does not start") : undefined;
    lines.push({
      id,
      group,
      what,
      works,
      expected: works ? words[0] : words[1],
      wanted: words[0],
      otherwise: works ? [words[1]] : [words[0]],
      because: missing ? `${upper(missing)}.` : good,
      ...leansOf(runsOnly ? join(world, [button, path]) : path),
    });
  };

  add("standby", "Power", "Standby light on the board", board, ["lit", "dark"], "The 24-pin brings standby 5 V as soon as mains is on.", false);
  add("button", "Power", "Reaction to the power button", button, ["starts", "nothing"], "The switch pulls PS-ON to ground.", false);

  for (const l of turning(whole)) {
    const led = leadPath(world, l.address);
    const still = fails(world, "motor", l.address, l.part.id);
    const path: Path = still === undefined || !led.ok ? led : { ...led, ok: false, missing: still };
    const control = controlPath(world, l.address);
    const rpm = l.part.type.ratings.rpm;
    add(
      `turns:${l.address}`,
      "Fans and pump",
      l.name,
      path,
      ["turns", "still"],
      control && !control.ok
        ? "Full speed: its hub has no speed signal."
        : rpm
          ? `About ${rpm} rpm at first: full speed until curves are set.`
          : "Full speed at first.",
    );
  }
  for (const l of whole.leads.values()) {
    if (l.loom !== "lighting" || l.lead.role !== "light") continue;
    const port = graph.ports.get(graph.ofLead.get(l.address)?.port ?? "");
    const harmed = port && mateOf(l, port).outcome === "harm";
    const over = port && overloaded(graph, port.address);
    // Addressable lights do nothing without a signal.
    const control = l.lead.family === "light-12v" ? undefined : controlPath(world, l.address);
    const led = join(world, [leadPath(world, l.address), ...(control ? [control] : [])]);
    const dark = fails(world, "leds", l.address, l.part.id);
    const path: Path = dark === undefined || !led.ok ? led : { ...led, ok: false, missing: dark };
    add(
      `lit:${l.address}`,
      "Lights",
      l.name,
      over ? { ...path, ok: false, missing: over } : path,
      ["lit", "dark"],
      harmed ? "" : "Colours move until the board's settings are saved.",
    );
  }

  // A fan that turns may tick: that is another thing than one that stands still.
  for (const l of lines) {
    if (!l.id.startsWith("turns:") || l.otherwise.length === 0) continue;
    const lead = graph.leads.get(l.id.slice("turns:".length));
    const rubs = l.works && lead ? fails(world, "rubs", lead.address, lead.part.id) : undefined;
    if (rubs) Object.assign(l, { expected: NOISE, otherwise: ["turns", "still"], because: `${upper(rubs)}: a ticking or rattling, at once.` });
    else l.otherwise = [...l.otherwise, NOISE];
  }
  const turns = new Map(lines.flatMap((l) => (l.id.startsWith("turns:") ? [[l.id.slice("turns:".length), l.works] as const] : [])));
  const start = startUp(world, whole, button, loaded, turns);
  lines.push(...start.lines);
  lines.push(...memoryLines(world, start.path));
  lines.push(...driveLines(world, whole, start.path));
  for (const l of whole.leads.values()) {
    if (l.part.type.kind !== "case" || !["audio", "usb"].includes(l.lead.role)) continue;
    const path = join(world, [start.path, leadPath(world, l.address)]);
    const expected = !start.path.ok ? NOT_REACHED : path.ok ? "works" : "dead";
    lines.push({
      id: `port:${l.address}`,
      group: "Front ports",
      what: l.name,
      works: path.ok,
      expected,
      wanted: "works",
      otherwise: ["works", "dead"].filter((w) => w !== expected),
      because: path.ok ? "Plug a stick or a headset in." : `${upper(path.missing ?? "")}.`,
      ...leansOf(join(world, [button, path])),
    });
  }
  return { verdict: verdict(damage, start, lines, button, board), damage, ...(start.stopsAt ? { stopsAt: start.stopsAt } : {}), lines };
}

const turning = (g: Graph): LeadNode[] =>
  [...g.leads.values()].filter((l) => l.loom === "fans" && ["cpu-fan", "radiator-fan", "case-fan", "pump"].includes(l.lead.role));

function damageOf(graph: Graph): string[] {
  return graph.connections.flatMap((c) => {
    const l = graph.leads.get(c.lead);
    const p = graph.ports.get(c.port);
    if (!l || !p) return [];
    const m = mateOf(l, p);
    return m.outcome === "harm" ? [`${l.tag} (${l.name}) in ${p.name}: ${m.because}`] : [];
  });
}

function overloaded(graph: Graph, address: string): string | undefined {
  const p = graph.ports.get(address);
  const on = p && hungOn(graph, p);
  if (!on || on.limitA === undefined || on.currentA <= on.limitA + 1e-9) return undefined;
  return `${on.name} is overloaded and shuts down`;
}

/** The power switch on its own two pins. */
function buttonPath(world: World): Path {
  const { graph } = world;
  for (const c of graph.connections) {
    const l = graph.leads.get(c.lead);
    const p = graph.ports.get(c.port);
    if (!l || !p || p.port.role !== "panel") continue;
    const element = jointElement(l, p);
    const part: Element = { id: l.address, kind: "switch", name: `${l.name} of the case` };
    if (l.lead.family === "panel-block") return join(world, [{ ok: true, leans: [element, part] }]);
    if (!l.lead.positions?.some((s) => s.startsWith("power switch"))) continue;
    const signals = panelPinout(p.port);
    const right = (c.place ?? []).every((n) => signals.get(n)?.startsWith("power switch"));
    return right
      ? join(world, [{ ok: true, leans: [element, part] }])
      : { ok: false, leans: [element, part], missing: `${l.tag} is not on the power-switch pins` };
  }
  return { ok: false, leans: [], missing: "the power switch is not plugged" };
}

const SLOWS = "slows itself down";

/** Leads of the pumps that cool the CPU. */
const pumpsOf = (graph: Graph): string[] =>
  cpuCoolers(graph).flatMap((c) => c.type.leads.flatMap((l) => (l.role === "pump" ? [`${c.id}:${l.id}`] : [])));

/** What keeps the CPU from its full load though it has power: a pump that stands still, a cooler that carries less than the CPU gives. */
function notCooled(world: World, turns: ReadonlyMap<string, boolean>): { expected: string; because: string } | undefined {
  const { graph } = world;
  const heatW = partsOfKind(graph, "cpu")[0]?.type.ratings.heatW ?? 0;
  const coolers = cpuCoolers(graph);
  const still = pumpsOf(graph).find((l) => turns.get(l) === false);
  if (still) {
    const of = graph.leads.get(still)?.part;
    return { expected: "shuts down", because: `The pump of ${of?.part.label ?? of?.type.name} stands still: the CPU overheats within a minute.` };
  }
  const bare = coolers.flatMap((c) => fails(world, "film", c.id) ?? fails(world, "paste", c.id) ?? [])[0];
  if (bare !== undefined) return { expected: SLOWS, because: `${upper(bare)}: the heat does not get through.` };
  const carriesW = Math.max(...coolers.map((c) => c.type.ratings.cooledW ?? Number.POSITIVE_INFINITY));
  const name = coolers[0]?.part.label ?? coolers[0]?.type.name;
  if (coolers.length > 0 && carriesW < heatW)
    return { expected: SLOWS, because: `${name} carries ${carriesW} W, the CPU gives ${heatW} W at full load.` };
  return undefined;
}

/** What lets the current go under load though it starts: a supply that gives way, a power plug that is only half in. */
function givesWay(world: World, sockets: readonly PortNode[]): { expected: string; because: string } | undefined {
  const weak = partsOfKind(world.graph, "supply").flatMap((s) => fails(world, "weak", s.id) ?? [])[0];
  const half = sockets.flatMap((s) => (world.graph.atPort.get(s.address) ?? []).flatMap((c) => fails(world, "half", `${c.lead}@${c.port}`) ?? []))[0];
  const why = weak ?? half;
  return why === undefined ? undefined : { expected: "shuts down", because: `${upper(why)}.` };
}

/** Cables that came with another supply: their pins carry something else. */
const foreignCables = (world: World): string[] =>
  [...world.graph.parts.values()].flatMap((p) => {
    const why = p.cable && fails(world, "foreign", p.id);
    return why ? [`${why}: other pins carry other volts`] : [];
  });

/** The board's main CPU socket: what comes to it, and what the board does where nothing does. Its sibling matters under load only. */
function withoutCpuPlug(world: World): { path: Path; does: "stops" | "nothing" | "goes off" } | undefined {
  const main = boardSockets(world.graph, "cpu-power")[0];
  return main && { path: powerPath(world, main), does: main.part.type.ratings.withoutCpuPower ?? "stops" };
}

interface Start {
  path: Path;
  lines: Expectation[];
  stopsAt?: PowerOn["stopsAt"];
}

/** CPU, memory, fan warning and picture, in the order in which a board stops. */
function startUp(world: World, whole: Graph, button: Path, loaded: boolean, turns: ReadonlyMap<string, boolean>): Start {
  const { graph } = world;
  const sockets = boardSockets(graph, "cpu-power");
  const main = sockets[0];
  const plug = withoutCpuPlug(world);
  const cpuPower: Path = plug?.path ?? { ok: true, leans: [] };
  const cpu = partsOfKind(graph, "cpu")[0];
  const seatedCpu = join(world, [button, cpuPower, cpu ? seatPath(world, cpu.id) : { ok: false, leans: [], missing: "there is no CPU" }]);
  const old = partsOfKind(graph, "board").flatMap((b) => fails(world, "firmware", b.id) ?? [])[0];
  const cpuPath: Path = old === undefined || !seatedCpu.ok ? seatedCpu : { ...seatedCpu, ok: false, missing: old };
  const modules = partsOfKind(graph, "memory").map((m) => seatPath(world, m.id));
  const seen = modules.filter((m) => m.ok);
  const memory: Path = modules.length > 0 ? either(modules) : { ok: false, leans: [], missing: "there is no memory" };
  const card = partsOfKind(graph, "card").find((c) => c.type.ratings.hasGraphics);
  const cardPath =
    card &&
    join(world, [
      seatPath(world, card.id),
      ...card.type.ports
        .filter((p) => p.role === "graphics-power")
        .flatMap((p) => {
          const socket = graph.ports.get(`${card.id}:${p.id}`);
          return socket ? [powerPath(world, socket)] : [];
        }),
    ]);
  const graphics: Path =
    cardPath ?? (cpu?.type.ratings.hasGraphics ? { ok: true, leans: [] } : { ok: false, leans: [], missing: "nothing gives a picture" });
  const header = [...whole.ports.values()].find((p) => p.port.role === "cpu-fan" && p.port.flow === "out");
  const signal = header && speedSignal(world, header.address);
  const halts = header !== undefined && !signal?.ok && graph.build.settings.cpuFanWarning === "halt";

  const upTo = (...paths: Path[]) => join(world, [button, ...paths]);
  const trained = upTo(cpuPath, memory);
  const tooFast = fails(world, "training", "settings");
  const post: Path = tooFast === undefined || !trained.ok ? trained : { ...trained, ok: false, missing: tooFast };
  const lines: Expectation[] = [];
  const line = (id: string, what: string, path: Path, words: [string, string], good: string) =>
    lines.push({
      id,
      group: "Start-up",
      what,
      works: path.ok,
      expected: words[path.ok ? 0 : 1],
      wanted: words[0],
      otherwise: [words[path.ok ? 1 : 0]],
      because: path.ok ? good : `${upper(path.missing ?? "")}.`,
      ...leansOf(path),
    });
  const stops = plug && !plug.path.ok && plug.does === "goes off" ? "goes off again" : "stops";
  line("cpu", "Start-up gets past the CPU stage", cpuPath, ["passes", stops], "CPU power and CPU are in.");
  line(
    "memory-stage",
    "Start-up gets past the memory stage",
    post,
    ["passes", "stops"],
    modules.length === 1 ? "The module is in." : `${seen.length} of ${modules.length} modules are in.`,
  );
  const picture = upTo(post, graphics, ...(graphics.ok ? [monitorPath(world, card ? "card" : "board")] : []));
  line(
    "picture",
    "Picture",
    picture,
    ["picture", "none"],
    cardPath ? "Monitor on the card, not on the board." : "Monitor on the board: the CPU's own graphics.",
  );
  if (header) {
    const quiet = signal?.ok ?? false;
    const all = join(world, [picture, ...(signal ? [signal] : [])]);
    const words = ["none", "halts, waits for a key", NOT_REACHED];
    const expected = !picture.ok ? NOT_REACHED : halts ? "halts, waits for a key" : "none";
    lines.push({
      id: "fan-warning",
      group: "Start-up",
      what: "CPU fan warning",
      works: picture.ok && !halts,
      expected,
      wanted: "none",
      otherwise: words.filter((w) => w !== expected),
      because: !picture.ok
        ? `${upper(picture.missing ?? "")}.`
        : quiet
          ? `${header.name} sees a speed signal.`
          : `${upper(signal?.missing ?? `${header.name} sees no speed signal`)}.`,
      ...leansOf(all),
      silent: true,
    });
  }
  if (main && cpu && loaded) {
    const alive = sockets.filter((s) => powerPath(world, s).ok);
    const fed = withConnections(
      graph,
      graph.connections.filter((c) => !sockets.some((s) => s.address === c.port && !alive.includes(s))),
    );
    const [draw, carries] = [cpuDrawW(graph), cpuFilledW(fed)];
    const short = picture.ok && carries < draw - 1e-9;
    const giving = picture.ok && !short ? givesWay(world, sockets) : undefined;
    const hot = picture.ok && !short ? (giving ?? notCooled(world, turns)) : undefined;
    const expected = !picture.ok ? NOT_REACHED : short ? "shuts down" : (hot?.expected ?? "holds");
    lines.push({
      id: "cpu-load",
      group: "Start-up",
      what: "Full load on the CPU",
      works: picture.ok && !short && !hot,
      expected,
      wanted: "holds",
      otherwise: ["holds", SLOWS, "shuts down", NOT_REACHED].filter((w) => w !== expected),
      because: !picture.ok
        ? `${upper(picture.missing ?? "")}.`
        : hot
          ? hot.because
          : `The CPU draws ${Math.round(draw)} W; its plugs carry ${Math.round(carries)} W.`,
      ...leansOf(join(world, [picture, ...alive.map((s) => powerPath(world, s)), ...pumpsOf(graph).map((l) => leadPath(world, l))])),
      silent: true,
    });
  }
  const path =
    halts && picture.ok
      ? { ...picture, ok: false, missing: `start-up halts: ${signal?.missing ?? "no speed signal on the CPU fan header"}` }
      : picture;
  const stopsAt: PowerOn["stopsAt"] = !boardPath(world).ok
    ? "standby"
    : !button.ok
      ? "button"
      : !cpuPath.ok
        ? "cpu"
        : !post.ok
          ? "memory"
          : !picture.ok
            ? "picture"
            : halts
              ? "fan-warning"
              : undefined;
  return { path, lines, ...(stopsAt ? { stopsAt } : {}) };
}

/** So many things that do not work are named in one sentence. */
const MOST_NAMED = 3;

function verdict(damage: string[], start: Start, lines: Expectation[], button: Path, board: Path): string {
  if (damage.length > 0) return `Do not press: ${damage[0]}.`;
  const still = lines.filter((l) => l.group === "Fans and pump" && !l.works).length;
  const all = lines.filter((l) => l.group === "Fans and pump").length;
  const fans = all === 0 ? "" : still === 0 ? "all fans turn" : still === all ? "no fan turns" : `${all - still} of ${all} fans and pumps turn`;
  const dark = [...(fans ? [fans] : []), "no picture"].join(", ");
  switch (start.stopsAt) {
    case "standby":
      return `If you press now: nothing at all. ${upper(board.missing ?? "")}.`;
    case "button":
      return `If you press now: nothing. ${upper(button.missing ?? "")}.`;
    case "cpu":
      return `If you press now: ${dark}. ${upper(lines.find((l) => l.id === "cpu")?.because ?? "")}`;
    case "memory":
      return `If you press now: ${dark}. ${upper(lines.find((l) => l.id === "memory-stage")?.because ?? "")}`;
    case "picture":
      return `If you press now: ${dark}. ${upper(lines.find((l) => l.id === "picture")?.because ?? "")}`;
    case "fan-warning":
      return `If you press now: ${fans && `${fans}, then `}start-up halts with a CPU fan warning and waits for a key.`;
    default: {
      const off = lines.filter((l) => !l.works && l.group !== "Fans and pump" && l.id !== "cpu-load").map((l) => l.what);
      const load = lines.find((l) => l.id === "cpu-load" && !l.works);
      const said = [
        ...(off.length > 0 ? [`not working: ${list(off, MOST_NAMED)}`] : []),
        ...(load ? [`under full load on the CPU it ${load.expected}`] : []),
      ];
      return `If you press now: ${["it starts", ...(fans ? [fans] : [])].join(", ")}${said.map((w) => `; ${w}`).join("")}.`;
    }
  }
}
