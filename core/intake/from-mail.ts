import { Build, byText, Policy, Wishes } from "../assembly";
import { type Beside, FORM_FACTORS, type PartKind, type PartType, provisional, SUPPLY_FORMS, type Values } from "../catalogue";
import type { Mail, MailLine } from "./mail";
import { kindIn } from "./mail";
import { isSeated, partIds, proposeMounts } from "./read-list";

export interface FromMail {
  build: Build;
  /** Part types that were made from words, with what each value rests on. */
  made: PartType[];
  /** Lines of no kind that a machine has: they stay with the job, in their words. */
  aside: MailLine[];
  /** Which parts a line became, by the line's place in the mail's list. */
  parts: Map<number, string[]>;
}

const isForm = (x: string | undefined): x is (typeof FORM_FACTORS)[number] => FORM_FACTORS.some((f) => f === x);
const isSupplyForm = (x: string | undefined) => SUPPLY_FORMS.some((f) => f === x);

/** What a line says, as figures of its kind. */
export function saidValues(l: Pick<MailLine, "kind" | "fits" | "said" | "words">): Values {
  const { kind, fits, said: s } = l;
  const out: Record<string, number | string | boolean> = {};
  const put = (id: string, v: number | string | boolean | undefined) => {
    if (v !== undefined) out[id] = v;
  };
  switch (kind) {
    case "board":
      put("form", isForm(s.form) ? s.form : undefined);
      put("memory", s.memory);
      put("socket", s.socket);
      put("wireless", s.wireless);
      break;
    case "case":
      put("form", isForm(s.form) ? s.form : undefined);
      put("front", fansAt(l.words, "front|vorn\\p{L}*"));
      put("top", fansAt(l.words, "top|oben"));
      break;
    case "cpu":
      put("watts", s.watts);
      put("socket", s.socket);
      put("cores", s.cores);
      break;
    case "memory":
      put("sizeGb", s.sizeGb);
      put("memory", s.memory);
      put("mts", s.mts);
      break;
    case "drive":
      put("form", fits === "disk" ? "3.5" : fits === "nvme" ? "M.2" : (s.drive ?? (fits === "ssd" ? "2.5" : undefined)));
      put("protocol", s.protocol ?? (fits === "nvme" ? "nvme" : undefined));
      put("sizeGb", s.sizeGb);
      break;
    case "card":
      put("graphics", fits === "network" ? false : fits === "graphics" ? true : undefined);
      put("watts", s.watts);
      put("lengthMm", s.lengthMm !== undefined && s.lengthMm >= 100 ? s.lengthMm : undefined);
      put("slots", s.slots);
      break;
    case "cooler":
      put("liquid", fits === "liquid" || s.radiatorMm !== undefined ? true : undefined);
      put("radiatorMm", s.radiatorMm);
      put("cooledW", s.watts);
      put(
        "heightMm",
        s.lengthMm !== undefined && s.radiatorMm === undefined && s.lengthMm >= 25 && s.lengthMm <= 200 && s.lengthMm !== s.fanMm
          ? s.lengthMm
          : undefined,
      );
      break;
    case "supply":
      put("watts", s.watts);
      put("form", isSupplyForm(s.form) ? s.form : undefined);
      put("modular", s.modular);
      put("efficiency", s.efficiency);
      break;
    case "fan":
      put("sizeMm", s.fanMm);
      put("lit", s.lit);
      break;
    case "lighting":
      put("leds", s.leds);
      break;
    default:
  }
  return out;
}

/** "3 fans in front", "2x 140 oben": how many go there. */
function fansAt(words: string, where: string): number | undefined {
  const n = new RegExp(
    `(?<![\\d.])([1-4])\\s*(?:x|×)?\\s*(?:\\d{3}\\s*(?:mm)?\\s*)?(?:fans?|lüfter)\\s+(?:\\p{L}+\\s+){0,2}?(?:${where})`,
    "iu",
  ).exec(words)?.[1];
  return n === undefined ? undefined : Number(n);
}

const KIND_NAME: Partial<Record<PartKind, string>> = {
  board: "Board",
  cpu: "Processor",
  cooler: "Cooler",
  memory: "Memory",
  drive: "Drive",
  card: "Card",
  supply: "Power supply",
  case: "Case",
  fan: "Fan",
  lighting: "Lights",
  hub: "Hub",
  splitter: "Splitter",
};
/** Words that are short stand as they are. */
const SHORT = 28;

/** Has it a name of its own, besides its kind, its figures and what describes it? */
function isNamed(words: string): boolean {
  const rest = (kindIn(words).rest || words)
    .replace(/\b(?:m-?atx|micro-?atx|mini-?itx|atx|itx|sfx|ddr\d|nvme|sata|wi-?fi|wlan|rgb|argb|psu|cpu|gpu|ssd|hdd|ram|m\.2)\b/gi, " ")
    .replace(/\d+(?:[.,]\d+)?\s*-?\s*(?:mm|cm|gb|tb|w|watts?|mhz|mt\/s|cores?|kerne?|pin|slots?|fans?|zoll|inch|"|liter)(?![\p{L}\d])/giu, " ");
  return rest.split(/[^\p{L}\p{N}-]+/u).some((w) => /^\p{Lu}/u.test(w) || /(?=\S*\d)(?=\S*\p{L})/u.test(w));
}

/** What a part is called that nobody has named: its own name where the words hold one, else its kind and what is said of it. */
function nameOfPart(l: MailLine): string {
  const bare = l.words
    .replace(/\s*\([^()]*\)/g, " ")
    .replace(/\s+/g, " ")
    .trim();
  if (l.words.length <= SHORT) return l.words;
  const first = (bare.split(/[,;]\s/)[0] ?? bare).trim();
  if (first.length >= 4 && isNamed(first)) return first.slice(0, 80);
  if (isNamed(bare)) return bare.slice(0, 80);
  const s = l.said;
  const figures = [
    s.watts === undefined ? "" : `${s.watts} W`,
    s.sizeGb === undefined || l.kind === "card" ? "" : s.sizeGb >= 1000 ? `${s.sizeGb / 1000} TB` : `${s.sizeGb} GB`,
    s.form ?? "",
    s.lengthMm === undefined ? "" : `${s.lengthMm} mm`,
    s.colour ?? "",
  ].filter(Boolean);
  return [KIND_NAME[l.kind ?? "board"] ?? l.words.slice(0, SHORT), ...figures.slice(0, 2)].join(" ");
}

const slug = (text: string): string =>
  text
    .normalize("NFKD")
    .replace(/\p{M}+/gu, "")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "")
    .slice(0, 50);

/** In this order parts are made, so that what follows knows what it has to go with. */
const TURN: readonly PartKind[] = ["cpu", "memory", "card", "board", "case", "cooler", "drive", "fan", "lighting", "hub", "splitter", "supply"];
const MOST_OF_ONE = 20;
const MOST_PARTS = 200;

/** What the parts that are there say of those that go with them. */
function besideOf(given: readonly PartType[], all: readonly MailLine[]): Beside {
  // Of two of a kind always the same one, in whatever order the lines stand.
  const list = [...given].sort((a, b) => byText(a.name, b.name) || byText(a.id, b.id));
  const lines = [...all].sort((a, b) => byText(a.words, b.words));
  const of = (k: PartKind) => list.find((t) => t.kind === k);
  const [board, cpu, memory, shell] = [of("board"), of("cpu"), of("memory"), of("case")];
  const real = (x: string | undefined) => (x === "assumed" ? undefined : x);
  const socket = real(board?.ports.find((p) => p.role === "cpu")?.key) ?? real(cpu?.leads[0]?.key);
  const type = board?.ports.find((p) => p.role === "memory")?.key ?? memory?.leads[0]?.key;
  const said =
    lines.find((l) => l.kind === "board" && isForm(l.said.form))?.said.form ?? lines.find((l) => l.kind === "case" && isForm(l.said.form))?.said.form;
  const form = board?.body.formFactor ?? said ?? shell?.body.forms?.[0];
  const drawW = list.filter((t) => t.kind === "cpu" || t.kind === "card").reduce((n, t) => n + (t.ratings.peakW ?? 0), 100);
  return {
    ...(socket ? { socket } : {}),
    ...(type ? { memory: type } : {}),
    ...(form ? { form } : {}),
    drawW,
    ...(form === "Mini-ITX" ? { small: true } : {}),
  };
}

/** A mail as a build: what the shelf knows as it is, what it does not know as such things usually are. */
export function fromMail(mail: Mail, shelf: (id: string) => PartType | undefined, head: { name?: string } = {}): FromMail {
  const lines = mail.lines.map((l, i) => ({ l, i })).filter(({ l }) => l.as === "part");
  const types = new Map<number, PartType>();
  const aside: MailLine[] = [];
  const made: PartType[] = [];
  const taken = new Set<string>();
  const wordsOfMade = new Map<string, string>();
  for (const { l, i } of lines) {
    const t = l.known ? shelf(l.known.id) : undefined;
    if (t) types.set(i, t);
  }
  const open = lines.filter(({ i }) => !types.has(i));
  for (const kind of TURN) {
    // What is of the same kind says nothing of one another.
    const beside = besideOf([...types.values()], mail.lines);
    for (const { l, i } of open) {
      if (l.kind !== kind) continue;
      const name = nameOfPart(l);
      const same = made.find((t) => wordsOfMade.get(t.id) === l.words && t.kind === kind);
      if (same) {
        types.set(i, same);
        continue;
      }
      let id = `new-${slug(l.words) || kind}`;
      for (let k = 2; taken.has(id); k++) id = `new-${slug(l.words) || kind}-${k}`;
      taken.add(id);
      const type = provisional(kind, { id, name }, saidValues(l), beside);
      types.set(i, type);
      wordsOfMade.set(id, l.words);
      made.push(type);
    }
  }
  for (const { l, i } of lines) if (!types.has(i)) aside.push(l);
  const list: { type: PartType; at: number; label?: string; own?: true; price?: number }[] = [];
  for (const { l, i } of lines) {
    const type = types.get(i);
    if (!type) continue;
    const each = l.price === undefined ? undefined : Math.round((l.price / Math.max(1, l.count)) * 100) / 100;
    for (let k = 0; k < Math.min(l.count, MOST_OF_ONE) && list.length < MOST_PARTS; k++)
      list.push({ type, at: i, ...(l.origin === "own" ? { own: true as const } : {}), ...(each === undefined ? {} : { price: each }) });
    const own = type.figures?.ownFans?.value;
    if (type.kind === "case" && typeof own === "number" && own > 0) {
      const fan = provisional("fan", { id: `${type.id.slice(0, 60)}-fan`, name: `Own fan of ${type.name}`.slice(0, 80) }, { sizeMm: 120 }, {});
      made.push(fan);
      for (let k = 0; k < own; k++) list.push({ type: fan, at: i, label: `Own fan ${k + 1}` });
    }
  }
  const ids = partIds(
    list.map((p) => p.type.kind),
    new Set(),
  );
  const shell = list.find((p) => p.type.kind === "case")?.type;
  const mounts = proposeMounts(
    shell,
    list.map((p, k) => ({
      id: ids[k] ?? "",
      kind: p.type.kind,
      seated: isSeated(p.type),
      ...(p.type.body.widthMm === undefined ? {} : { sizeMm: p.type.body.widthMm }),
    })),
  );
  const parts = new Map<number, string[]>();
  for (const [k, p] of list.entries()) parts.set(p.at, [...(parts.get(p.at) ?? []), ids[k] ?? ""]);
  const build = Build.parse({
    format: "imbra-build",
    version: 1,
    name: head.name ?? "From a mail",
    ...(mail.client.name ? { client: mail.client.name.slice(0, 120) } : {}),
    policy: Policy.parse({}),
    wishes: Wishes.parse({
      ...(mail.budget === undefined ? {} : { budget: mail.budget }),
      ...(mail.promises.some((p) => p.about === "wireless") ? { wireless: true } : {}),
      ...noise(mail),
      monitors: mail.monitors.map((m) => ({ ...m, socket: m.socket ?? "DisplayPort" })),
    }),
    partTypes: made,
    parts: list.map((p, k) => {
      const mount = mounts.get(ids[k] ?? "");
      return {
        id: ids[k],
        type: p.type.id,
        ...(p.label ? { label: p.label } : {}),
        ...(mount ? { mount } : {}),
        ...(p.own ? { reused: true } : {}),
        ...(p.price === undefined ? {} : { price: p.price }),
      };
    }),
  });
  return { build, made, aside, parts };
}

const noise = (mail: Mail) => {
  const db = mail.promises.find((p) => p.about === "quiet" && p.value !== undefined)?.value;
  return db !== undefined && db >= 10 && db <= 80 ? { noiseDb: db } : {};
};
