import { type Build, buildGraph, type Graph, partsOfKind, typeLookup } from "../core/assembly";
import { answerTo } from "../core/diagnose";
import { type Assignment, cardHeatC, modesOf, type Observable, ROOM_C, type Simulation, simulate, warmedC } from "../core/machine";

/** What hands do to it, and how long that takes, minutes (common practice). */
export const DEEDS = {
  mains: { words: "the supply's switch", minutes: 0 },
  press: { words: "the power button", minutes: 0 },
  load: { words: "a load on CPU and card", minutes: 0 },
  profile: { words: "the memory profile", minutes: 1 },
  seat: { words: "seat it anew, plug and all", minutes: 3 },
  swap: { words: "put a known-good one in its place", minutes: 10 },
} as const;
export type Deed = keyof typeof DEEDS;

/** What a deed puts right. */
const CURES: Partial<Record<Deed, readonly string[]>> = {
  seat: ["unseated", "out", "loose", "half", "off", "film on", "no paste", "touches metal", "rubs", "in the board", "in an input"],
  swap: ["dead", "weak", "still", "no signal", "dark", "slow", "no control", "of another supply", "old firmware"],
};
/** Plugs are moved in about so many minutes (common practice). */
const MOVE_MIN = 3;
/** May be done while it is on the mains. */
const LIVE: readonly Deed[] = ["mains", "press", "load", "profile"];
const OUTSIDE: ReadonlySet<string> = new Set(["mains", "monitor"]);

/** Seconds after the press at which things begin, within what boards take (common practice). */
const [FANS_S, LIGHTS_S, CODE_S, PICTURE_S, FIRST_PICTURE_S] = [0.6, 1.5, 5, 14, 32];
/** Metal of a card, s to 63 % of the way (common practice). */
const CARD_TAU_S = 90;
/** A clock that stands for full, MHz: a share is what the model knows. */
const FULL_MHZ = 4500;
const IDLE_SHARE = 0.25;
const MOST_SAID = 30;

export interface FanNow {
  id: string;
  part: string;
  name: string;
  turns: boolean;
  rpm?: number;
}

/** How the machine stands, as somebody before it sees, hears and reads it. What is wrong with it is not said. */
export interface MachineState {
  simulated: true;
  name: string;
  /** Seconds that passed for the machine, and how fast they pass. */
  clockS: number;
  faster: number;
  mains: boolean;
  on: boolean;
  /** Since the press, s. */
  sinceS: number;
  standbyLit: boolean;
  fans: FanNow[];
  lights: { id: string; part: string; name: string; lit: boolean }[];
  /** Which of the board's stage lights is lit. */
  stage: string;
  screen: string[];
  noiseDb: number;
  loaded: boolean;
  profile: boolean;
  readings: Record<string, number>;
  /** What hands are at, and until which second of the machine. */
  busy: { words: string; untilS: number } | null;
  said: string[];
}

/** A machine that answers like one: made of a build as it stands, with faults that are not shown. It knows no clock but `pass`. */
export class SimulatedMachine {
  #graph: Graph;
  #build: Build;
  /** As the job asks for it, whatever the firmware has set by now. */
  readonly #asked: Build["settings"];
  #modes: Record<string, string>;
  readonly #hidden: Assignment;
  #sim: Simulation;
  #clockS = 0;
  #mains = false;
  #onS: number | undefined;
  #loaded = false;
  #profile = false;
  #nextProfile = false;
  #started = 0;
  #cpuC: number = ROOM_C;
  #cardC: number = ROOM_C;
  #busy: { words: string; untilS: number; done: () => void } | undefined;
  #said: string[] = [];
  faster = 1;

  constructor(build: Build, hidden: Assignment = {}) {
    this.#asked = build.settings;
    // Whatever was bought: a board that starts for the first time knows no profile.
    this.#build = { ...build, settings: { ...build.settings, memoryProfile: false } };
    this.#graph = graphOf(this.#build);
    this.#hidden = { ...build.modes, ...hidden };
    this.#modes = { ...this.#hidden };
    this.#sim = this.#simulated();
  }

  /** What was hidden in it, and what of it is still so. */
  get hidden(): { element: string; mode: string; still: boolean }[] {
    return Object.entries(this.#hidden).map(([element, mode]) => ({ element, mode, still: this.#modes[element] === mode }));
  }

  get graph(): Graph {
    return this.#graph;
  }

  /** Time passes: what warms goes on warming, what hands are at gets done. */
  pass(realS: number): void {
    let left = Math.max(0, realS) * this.faster;
    // In steps, so that what ends in between ends then.
    while (left > 0) {
      const dt = Math.min(left, 5);
      left -= dt;
      this.#clockS += dt;
      this.#warm(dt);
      if (this.#busy && this.#clockS >= this.#busy.untilS) {
        this.#busy.done();
        this.#busy = undefined;
      }
    }
  }

  /** Does something, or says why not. */
  do(deed: Deed, element = ""): string {
    if (this.#busy) return this.#say(`Hands are still at: ${this.#busy.words}.`);
    if (!LIVE.includes(deed) && !OUTSIDE.has(element) && (this.#mains || this.#onS !== undefined))
      return this.#say("Off first, and the supply's switch too: then hands go in.");
    switch (deed) {
      case "mains":
        this.#mains = !this.#mains;
        if (!this.#mains) this.#stop();
        return this.#say(this.#mains ? "The supply is switched on." : "The supply is switched off.");
      case "press":
        return this.#press();
      case "load":
        if (!this.#runs()) return this.#say("Nothing runs that could be loaded.");
        this.#loaded = !this.#loaded;
        return this.#say(this.#loaded ? "Full load on CPU and card." : "The load has ended.");
      case "profile":
        if (!this.#up()) return this.#say("There is no firmware screen yet.");
        this.#nextProfile = !this.#nextProfile;
        return this.#say(`The memory profile is ${this.#nextProfile ? "on" : "off"} from the next start.`);
      default:
        return this.#work(deed, element);
    }
  }

  /**
   * A fault is hunted in it: a line of the sheet is looked at, or something is done about it after which `lines`, which were wrong, are
   * looked at again. It is off while hands are in it, and started after.
   */
  hunt({ line, deed, lines }: { line?: string | undefined; deed?: string | undefined; lines: readonly string[] }): {
    value?: string;
    result?: string;
  } {
    const asBought = graphOf({ ...this.#build, settings: this.#asked });
    if (this.#onS === undefined || deed !== undefined) {
      this.#stop();
      this.#mains = true;
    }
    if (deed !== undefined) {
      const { result, modes } = answerTo(asBought, this.#modes, deed, lines);
      this.#modes = { ...modes };
      this.#press();
      this.#say(`Tried: ${result}.`);
      return { result };
    }
    if (this.#onS === undefined) this.#press();
    const seen = simulate(asBought, { modes: this.#modes }).observables.find((o) => o.id === line);
    return seen ? { value: String(seen.value) } : {};
  }

  /** Plugs are moved to where a newer record has them, which takes minutes. What is hidden in it stays. */
  become(build: Build): string {
    if (this.#busy) return this.#say(`Hands are still at: ${this.#busy.words}.`);
    if (this.#mains || this.#onS !== undefined) return this.#say("Off first, and the supply's switch too: then plugs move.");
    const words = "plugs, to where the record has them";
    this.#busy = {
      words,
      untilS: this.#clockS + MOVE_MIN * 60,
      done: () => {
        this.#build = { ...build, settings: { ...build.settings, memoryProfile: this.#nextProfile } };
        this.#graph = graphOf(this.#build);
        this.#modes = Object.fromEntries(Object.entries(this.#modes).filter(([e]) => modesOf(this.#graph, e).length > 0));
        this.#sim = this.#simulated();
        this.#say("It is plugged as it is recorded.");
      },
    };
    return this.#say(`${MOVE_MIN} minutes: ${words}.`);
  }

  #simulated = () => simulate(this.#graph, { modes: this.#modes });

  #say(words: string): string {
    this.#said = [words, ...this.#said].slice(0, MOST_SAID);
    return words;
  }

  #work(deed: "seat" | "swap", element: string): string {
    if (modesOf(this.#graph, element).length === 0) return this.#say("There is nothing of that name in this machine.");
    const { words, minutes } = DEEDS[deed];
    this.#busy = {
      words,
      untilS: this.#clockS + minutes * 60,
      done: () => {
        const mode = this.#modes[element];
        if (mode !== undefined && CURES[deed]?.includes(mode)) delete this.#modes[element];
        this.#sim = this.#simulated();
        this.#say(`Done: ${words}.`);
      },
    };
    return this.#say(`${minutes} minutes: ${words}.`);
  }

  #press(): string {
    if (this.#onS !== undefined) {
      this.#stop();
      return this.#say("Held, and it is off.");
    }
    if (!this.#mains) return this.#say("Nothing happens: the supply is off at its switch.");
    if (this.#nextProfile !== this.#profile) {
      this.#profile = this.#nextProfile;
      this.#build = { ...this.#build, settings: { ...this.#build.settings, memoryProfile: this.#profile } };
      this.#graph = graphOf(this.#build);
    }
    this.#sim = this.#simulated();
    if (this.#sim.damage.length > 0) return this.#say("A click, and it stays dark. Off with it: something is plugged that must not be.");
    if (this.#sim.stopsAt === "standby" || this.#sim.stopsAt === "button") return this.#say("Nothing happens.");
    this.#onS = this.#clockS;
    this.#started++;
    return this.#say("It starts.");
  }

  #stop(): void {
    this.#onS = undefined;
    this.#loaded = false;
  }

  #since = () => (this.#onS === undefined ? 0 : this.#clockS - this.#onS);
  #runs = () => this.#onS !== undefined && this.#since() >= CODE_S;
  #works = (id: string) => this.#sim.lines.find((l) => l.id === id)?.works ?? false;
  #up = () => this.#runs() && this.#works("picture") && this.#since() >= (this.#started <= 1 ? FIRST_PICTURE_S : PICTURE_S);

  #warm(dt: number): void {
    const { heat } = this.#sim;
    const running = this.#onS !== undefined;
    const [tau, to] = heat ? [heat.tauS, running ? (this.#loaded ? heat.loadC : heat.idleC) : ROOM_C] : [300, ROOM_C];
    this.#cpuC = warmedC(this.#cpuC, to, tau, dt);
    const card = running ? (this.#loaded ? cardHeatC(this.#graph, 1).loadC : ROOM_C + 15) : ROOM_C;
    this.#cardC = warmedC(this.#cardC, card, CARD_TAU_S, dt);
    if (this.#loaded && heat?.holds === "shuts down" && this.#cpuC > heat.loadC - 3) {
      this.#stop();
      this.#say("It goes off by itself.");
    }
    if (this.#loaded && this.#sim.lines.some((l) => l.id === "cpu-load" && l.expected === "shuts down")) {
      this.#stop();
      this.#say("It goes off by itself the moment it has work.");
    }
  }

  #hasCard = () => partsOfKind(this.#graph, "card").some((c) => c.type.ratings.hasGraphics);

  /** What programs on it would log at this moment, by column as such logs name them. Nothing while no system could run. */
  readings(): Record<string, number> {
    if (!this.#up()) return {};
    const share = this.#loaded ? (this.#sim.heat?.clockShare ?? 1) : IDLE_SHARE;
    // Sensors jitter by some tenths.
    const jitter = (k: number) => Math.sin(this.#clockS * 0.37 + k) * 0.3;
    const tenth = (v: number) => Math.round(v * 10) / 10;
    return {
      "CPU °C": tenth(this.#cpuC + jitter(0)),
      ...(this.#hasCard() ? { "GPU °C": tenth(this.#cardC + jitter(1)) } : {}),
      "CPU clock MHz": Math.round(FULL_MHZ * share),
      "CPU load %": this.#loaded ? 100 : 3,
      ...Object.fromEntries(this.#headers().map((h) => [`${h.label} rpm`, h.rpm])),
    };
  }

  /** What each header of the board reads now. */
  #headers(): { label: string; rpm: number }[] {
    return this.#sim.observables.flatMap((o) => {
      const at = o.id.startsWith("reads:") ? this.#graph.ports.get(o.id.slice("reads:".length)) : undefined;
      return at && typeof o.value === "number" ? [{ label: at.port.label, rpm: this.#onS === undefined ? 0 : o.value }] : [];
    });
  }

  state(): MachineState {
    const since = this.#since();
    const on = this.#onS !== undefined;
    const of = (prefix: string) => this.#sim.observables.filter((o) => o.id.startsWith(prefix));
    const rpm = new Map(this.#headers().map((h) => [h.label, h.rpm]));
    const leadOf = (o: Observable, prefix: string) => this.#graph.leads.get(o.id.slice(prefix.length));
    return {
      simulated: true,
      name: this.#build.name,
      clockS: Math.round(this.#clockS * 10) / 10,
      faster: this.faster,
      mains: this.#mains,
      on,
      sinceS: Math.round(since * 10) / 10,
      standbyLit: this.#mains && this.#works("standby"),
      fans: of("turns:").map((o) => {
        const lead = leadOf(o, "turns:");
        const turns = on && since >= FANS_S && (this.#sim.lines.find((l) => l.id === o.id)?.works ?? false);
        const at = lead && this.#graph.ofLead.get(lead.address)?.port;
        const reads = at === undefined ? undefined : rpm.get(this.#graph.ports.get(at)?.port.label ?? "");
        return {
          id: o.id,
          part: lead?.part.id ?? "",
          name: lead?.name ?? o.what,
          turns,
          ...(turns && reads ? { rpm: Math.round(reads * Math.min(1, since / 4)) } : {}),
        };
      }),
      lights: of("lit:").map((o) => ({
        id: o.id,
        part: leadOf(o, "lit:")?.part.id ?? o.id.slice("lit:".length),
        name: o.what,
        lit: on && since >= LIGHTS_S && (this.#sim.lines.find((l) => l.id === o.id)?.works ?? false),
      })),
      stage: this.#stage(),
      screen: this.#screen(),
      noiseDb: on ? Number(of("noise")[0]?.value ?? 0) || 0 : 0,
      loaded: this.#loaded,
      profile: this.#profile,
      readings: this.readings(),
      busy: this.#busy ? { words: this.#busy.words, untilS: this.#busy.untilS } : null,
      said: [...this.#said],
    };
  }

  #stage(): string {
    if (!this.#runs() || this.#up()) return "";
    const at = { cpu: "CPU", memory: "memory", picture: "graphics" }[this.#sim.stopsAt as "cpu"] as string | undefined;
    return at ?? (this.#since() < (this.#started <= 1 ? FIRST_PICTURE_S : PICTURE_S) ? "memory" : "");
  }

  #screen(): string[] {
    if (!this.#up()) return [];
    const line = (id: string) => this.#sim.lines.find((l) => l.id === id);
    if (this.#sim.stopsAt === "fan-warning") return ["CPU fan: no speed. Press a key to go on to the firmware."];
    const [size, speed] = [line("memory-size"), line("memory-speed")];
    return [
      ...(size ? [`Memory ${size.expected} GB`] : []),
      ...(speed ? [`Memory speed ${speed.expected} MT/s, profile ${this.#profile ? "on" : "off"}`] : []),
      ...this.#sim.lines.filter((l) => l.id.startsWith("drive:") && l.expected === "listed").map((l) => `${l.what}: listed`),
      ...this.#headers().map((h) => `${h.label} ${h.rpm} rpm`),
      `CPU ${Math.round(this.#cpuC)} °C`,
    ];
  }

  /** What a system on it could say of itself; undefined while none runs. */
  get told(): { graph: Graph; lines: Simulation["lines"]; readings: Record<string, number>; headers: { label: string; rpm: number }[] } | undefined {
    return this.#up() && this.#sim.stopsAt !== "fan-warning"
      ? { graph: this.#graph, lines: this.#sim.lines, readings: this.readings(), headers: this.#headers() }
      : undefined;
  }
}

const graphOf = (build: Build): Graph => buildGraph(build, typeLookup(build, []));

/** So many faults for whoever trains: chosen by a number, the same for the same. */
export function hiddenIn(build: Build, count: number, seed: number): Assignment {
  const graph = graphOf(build);
  const elements = [...[...graph.parts.values()].map((p) => p.id), ...graph.connections.map((c) => `${c.lead}@${c.port}`), "mains", "monitor"];
  const out: Record<string, string> = {};
  let state = (seed >>> 0) + 1;
  const next = (below: number) => {
    // A linear congruential generator (Numerical Recipes' constants, from memory).
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return Math.floor((state / 2 ** 32) * below);
  };
  const good = simulate(graph);
  for (let tries = 0; tries < 400 && Object.keys(out).length < count; tries++) {
    const element = elements[next(elements.length)] ?? "mains";
    const may = modesOf(graph, element).filter((m) => CURES.seat?.includes(m.id) || CURES.swap?.includes(m.id));
    const mode = may[next(may.length)];
    if (!mode || out[element] !== undefined) continue;
    // Something has to come of it, and nothing that would burn.
    const then = simulate(graph, { modes: { ...out, [element]: mode.id } });
    const shows = then.observables.some((o, i) => String(o.value) !== String(good.observables[i]?.value));
    if (shows && then.damage.length === 0) out[element] = mode.id;
  }
  return out;
}
