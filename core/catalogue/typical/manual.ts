import type { PartKind } from "../part-type";
import type { FigureValue } from "./kind";

/** One line of a manual's list, and what it says of a figure. */
export interface ManualLine {
  text: string;
  /** Left out: kept in view, not understood. `one`: every such part has exactly one; only its name is new. */
  figure?: string | "one";
  count: number;
  /** As printed, in their order. */
  names: string[];
}

interface Means {
  figure: string;
  words: RegExp;
  /** Which ports of the made part it is, by number from 0. */
  port?: (i: number) => string;
}

/** What lines of such lists mean, by kind; the first that answers counts. English and German words (common practice of manuals). */
const MEANS: Partial<Record<PartKind, readonly Means[]>> = {
  board: [
    { figure: "one", words: /\b24[ -]?(?:pin|polig)|\beatx|\batx_?pwr|main power|hauptstrom/i, port: () => "ATX_PWR" },
    {
      figure: "cpuPlugs",
      words: /\b[48][ -]?(?:pin|polig)[^,]*(?:12 ?v|power|strom|cpu)|\batx_?12v|\bcpu_?(?:pwr|power)|\beps/i,
      port: (i) => `CPU_PWR${i + 1}`,
    },
    { figure: "cpuOpt", words: /\bcpu_?opt|\bcpu_?fan_?2|second cpu fan|zweiter cpu/i, port: () => "CPU_OPT" },
    { figure: "one", words: /\bcpu_?fan|cpu fan|cpu-?lüfter/i, port: () => "CPU_FAN" },
    { figure: "pump", words: /pump|\baio|water|wasser/i, port: () => "PUMP1" },
    { figure: "caseFans", words: /\b(?:cha|sys|case|chassis|system|gehäuse)[ _-]?(?:fan|lüfter)|\bfan headers?\b/i, port: (i) => `SYS_FAN${i + 1}` },
    {
      figure: "led5",
      words: /addressable|adressierbar|\ba_?rgb|\bargb|\bjrainbow|\b5 ?v\b.*(?:led|light|licht)|(?:led|light).*\b5 ?v\b|gen ?2.*(?:led|light)/i,
      port: (i) => `LED5V_${i + 1}`,
    },
    { figure: "led12", words: /\brgb|\bjrgb|led strip|\b12 ?v\b.*(?:led|light|licht)|(?:led|light).*\b12 ?v\b/i, port: (i) => `LED12V_${i + 1}` },
    { figure: "usbc", words: /type[ -]?c|usb[ _-]?c\b|u31g2|key-?a/i, port: () => "USBC_1" },
    {
      figure: "usb3",
      words: /usb ?3|u32|usb ?5 ?g|\b(?:19|20)[ -]?(?:pin|polig).*usb|usb.*\b(?:19|20)[ -]?(?:pin|polig)/i,
      port: (i) => `USB3_${i + 1}`,
    },
    { figure: "usb2", words: /usb ?_?2|\busb_?\d|usb.*\b9[ -]?(?:pin|polig)/i, port: (i) => `USB2_${i + 1}` },
    { figure: "sata", words: /sata/i, port: (i) => `SATA_${i + 1}` },
    { figure: "m2", words: /\bm\.?2/i, port: (i) => `M2_${i + 1}` },
    { figure: "dimms", words: /dimm|memory slot|ddr|speicherbank/i },
    { figure: "slots", words: /pci|expansion|erweiterung/i, port: (i) => `SLOT_${i + 1}` },
    { figure: "one", words: /panel|\bpanel1|f_?panel|frontbedien/i, port: () => "PANEL1" },
    { figure: "one", words: /audio|aafp/i, port: () => "AUDIO1" },
  ],
  supply: [
    { figure: "one", words: /\b24[ -]?(?:pin|polig)|20 ?\+ ?4/i },
    { figure: "cpu", words: /eps|cpu|4 ?\+ ?4/i },
    { figure: "g16", words: /12v-?2x6|12vhpwr|\b16[ -]?(?:pin|polig)|12 ?\+ ?4/i },
    { figure: "gfx", words: /6 ?\+ ?2|pci|graphic|grafik/i },
    { figure: "sata", words: /sata/i },
  ],
  case: [
    { figure: "cardMm", words: /graphic|gpu|vga|grafik/i },
    { figure: "coolerMm", words: /cooler|kühler/i },
    { figure: "supplyMm", words: /psu|power supply|netzteil/i },
    { figure: "behindMm", words: /cable|behind|kabel/i },
    { figure: "topThickMm", words: /radiator.*(?:top|oben)|(?:top|oben).*radiator.*thick/i },
    { figure: "ownFans", words: /included|fitted|pre-?installed|vorinstalliert|dabei/i },
    { figure: "frontC", words: /type[ -]?c|usb[ -]?c/i },
    { figure: "front3", words: /usb ?3/i },
    { figure: "front", words: /front|vorn/i },
    { figure: "top", words: /\btop|oben/i },
    { figure: "disks", words: /3[.,]5/i },
  ],
};

/** Which figure counts this port, and the how many-eth it is, from 0. */
export function figureOfPort(kind: PartKind, port: string): { figure: string; index: number } | undefined {
  for (const m of MEANS[kind] ?? [])
    if (m.port && m.figure !== "one") for (let index = 0; index < 12; index++) if (m.port(index) === port) return { figure: m.figure, index };
  return undefined;
}

export const MOST_MANUAL_LINES = 200;
const AMOUNT = /^\s*(\d{1,2})\s*(?:x|×|pcs\b|\*)|(?:x|×)\s*(\d{1,2})\s*$|\((\d{1,2})\)\s*$|^\s*(\d{1,2})\s+(?=[a-zäöü])/i;
/** A header's name as boards print it: capitals and digits, with an underscore or a digit in it. */
const NAME = /\b[A-Z][A-Z0-9]*(?:_[A-Z0-9]+)*\d*\b/g;
const NOT_A_NAME =
  /^(?:USB|SATA|RGB|LED|CPU|PCI|PCIE|PCIEX\d+|ATX|EPS|DDR\d?|AIO|ARGB|USB\d|V\d?|M|X\d+|DIMM|PSU|GPU|VGA|GEN\d?|PIN|FAN|TYPE|C|D|A|I|HD)$/;

/** "CHA_FAN1/2/3", "CHA_FAN1~3", "CHA_FAN1-3", "SATA6G_1, SATA6G_2": all of them by name. */
function namesIn(text: string): string[] {
  const out: string[] = [];
  const whole = text.replace(
    /\b([A-Z][A-Z0-9_]*?)(\d{1,2})((?:\s*[/,&]\s*\d{1,2})+|\s*[~-]\s*\d{1,2})(?!\d*[ -]?(?:pin|polig|mm|V))\b/g,
    (_, stem: string, first: string, rest: string) => {
      const range = /^\s*[~-]\s*(\d{1,2})$/.exec(rest);
      const numbers = range
        ? Array.from({ length: Math.max(0, Math.min(12, Number(range[1]) - Number(first) + 1)) }, (__, i) => Number(first) + i)
        : [Number(first), ...[...rest.matchAll(/\d{1,2}/g)].map((m) => Number(m[0]))];
      out.push(...numbers.map((n) => `${stem}${n}`));
      return " ";
    },
  );
  for (const m of whole.matchAll(NAME)) if (/[_\d]/.test(m[0]) && !NOT_A_NAME.test(m[0]) && m[0].length > 2 && m[0].length <= 20) out.push(m[0]);
  return [...new Set(out)];
}

const MM = /(\d{2,3})\s*mm/i;

/**
 * A manual's own list of headers or cables, line by line, with what it counts: figures of the kind and, of boards, ports by name. What is not
 * understood is kept in view. Lists that are too long are cut; `lines` says so by their number.
 */
export function manualLines(
  kind: PartKind,
  text: string,
): { lines: ManualLine[]; values: Record<string, FigureValue>; names: Record<string, string> } {
  const means = MEANS[kind] ?? [];
  const lines = text
    .split(/\r?\n/)
    .map((l) => l.trim())
    .filter(Boolean)
    .slice(0, MOST_MANUAL_LINES)
    .map((raw): ManualLine => {
      const line = raw.replace(/^[-*•·–]\s*/, "").slice(0, 300);
      const m = means.find((x) => x.words.test(line));
      const names = kind === "board" ? namesIn(line) : [];
      const said = AMOUNT.exec(line);
      const amount = said ? Number(said[1] ?? said[2] ?? said[3] ?? said[4]) : undefined;
      if (!m) return { text: raw.slice(0, 300), count: 0, names: [] };
      if (m.figure.endsWith("Mm")) {
        const mm = MM.exec(line);
        return { text: raw.slice(0, 300), ...(mm ? { figure: m.figure } : {}), count: mm ? Number(mm[1]) : 0, names: [] };
      }
      return { text: raw.slice(0, 300), figure: m.figure, count: Math.min(40, amount ?? Math.max(1, names.length)), names };
    });
  const values: Record<string, FigureValue> = {};
  const names: Record<string, string> = {};
  for (const l of lines) {
    if (!l.figure) continue;
    const m = means.find((x) => x.figure === l.figure && x.words.test(l.text));
    if (l.figure.endsWith("Mm")) {
      values[l.figure] = l.count;
      continue;
    }
    const had = l.figure === "one" ? 0 : Number(values[l.figure] ?? 0);
    l.names.slice(0, l.count).forEach((name, i) => {
      const port = m?.port?.(had + i);
      if (port) names[port] = name;
    });
    if (l.figure === "one") continue;
    values[l.figure] = BOOLEAN.has(`${kind} ${l.figure}`) ? true : had + l.count;
  }
  return { lines, values, names };
}
/** There is one, or none. */
const BOOLEAN: ReadonlySet<string> = new Set(["board cpuOpt", "board pump", "board usbc", "case frontC"]);
