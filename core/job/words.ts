import { lower } from "../words";
import type { EventKind, JobEvents } from "./events";

const PLUG_WORD = { plugged: "plugged into", checked: "checked in", out: "taken out of" } as const;

const WISH_WORD: Record<string, string> = {
  noiseDb: "loudest in dB(A)",
  upgradeW: "upgrade in W",
  upgrade: "later upgrade",
  lighting: "lighting",
  purpose: "purpose",
  budget: "budget",
  monitors: "monitors",
  wireless: "wireless network",
};

/** What somebody wrote, with the full stop that a sentence ends with. */
const ended = (text: string): string => (/[.!?…]$/.test(text) ? text : `${text}.`);

const list = (words: readonly (string | false | undefined)[]) => words.filter(Boolean).join(", ");

/** The log's sentence for each kind of event. */
const WORDS: { [K in EventKind]: (d: JobEvents[K]) => string } = {
  "set-up": (d) =>
    d.state === "later"
      ? `Put off: ${d.what}.`
      : d.state === "not"
        ? `Not done: ${d.what}. ${d.why}`
        : `${d.what}: ${d.after || d.target}${d.before ? `, before ${d.before}` : ""}${d.stands === "otherwise" ? `; wanted ${d.target}` : ""}.`,
  report: (d) => `Report ${d.name} (${d.from}): ${d.lines} ${d.lines === 1 ? "line" : "lines"} of the sheet; ${d.read.slice(0, 6).join(", ")}.`,
  proved: (d) =>
    `Promised: ${d.words}. ${d.verdict.charAt(0).toUpperCase()}${d.verdict.slice(1)}. ${d.because}${d.conditions ? ` (${d.conditions})` : ""}`,
  lent: (d) => `On loan in this machine: ${d.what}, of ${d.owner}${d.serial ? `, ${d.serial}` : ""}.`,
  "loan-back": (d) => `Out again, back with its owner: ${d.what}${d.serial ? `, ${d.serial}` : ""}.`,
  "secret-kept": (d) => `Sealed: ${d.what}.`,
  "secret-shown": (d) => `Shown once, and no longer kept: ${d.what}.`,
  "by-itself": (d) => `Runs by itself, about ${d.minutes} minutes: ${d.what}.`,
  "by-itself-seen": (d) => `${d.what}: looked at after ${d.afterMinutes} minutes.`,
  "machine-let-in": (d) =>
    `${d.simulated ? "A simulated machine" : "The machine"} may send its readings (${d.name}), until ${d.until.slice(0, 16).replace("T", " ")} UTC.`,
  "machine-shut-out": (d) => `It may not send readings any more (${d.name}).`,
  "soak-log": (d) => `${d.simulated ? "Simulated soak" : "Soak"}: ${d.verdict}, ${d.minutes} minutes (${d.name}). ${d.because}`.trim(),
  brief: (d) => `With the client: ${d.changes.join("; ")}.`,
  "figure-confirmed": (d) =>
    d.was ? `${d.name}: ${d.word} is ${d.value}; ${d.was} was assumed.` : `${d.name}: ${d.word} is ${d.value}, as assumed.`,
  "job-made": (d) =>
    d.from === "file"
      ? `Job ${d.number} made from a build file: ${d.parts} parts.`
      : `Job ${d.number} made for ${d.client}: ${d.parts} parts${d.copyOf ? `, copied from ${d.copyOf}` : ""}${d.aside ? `; ${d.aside} lines kept aside` : ""}.`,
  "part-added": (d) => `${d.count > 1 ? `${d.count} × ` : ""}${d.names.join(", ")} added.`,
  "part-removed": (d) => `${d.name} removed from the parts.`,
  "part-placed": (d) => `${d.name}: ${d.changes.join(", ")}.`,
  "part-measured": (d) =>
    `${d.name}: ${lower(d.word)} ${d.mm === null ? "no longer measured" : `measured, ${d.mm} mm`}${d.was === null ? "" : `; ${d.was} mm before`}.`,
  "part-named": (d) => `${d.was} is called ${d.now || "by its place"} now.`,
  "part-serial": (d) => `${d.name}: serial ${d.serial === null ? "removed" : d.serial}.`,
  "part-swapped": (d) => `${d.name}: ${d.was} replaced by ${d.now}. The plan is stale.`,
  "part-corrected": (d) => `${d.name}: revision ${d.revision} of ${d.type} taken over. The plan is stale.`,
  bought: (d) =>
    `${d.count > 1 ? `${d.count} × ` : ""}${d.names.join(", ")}: ${
      list([
        d.price !== undefined && `${d.price.toFixed(2)} each`,
        d.supplier && `from ${d.supplier}`,
        d.orderedOn && `ordered ${d.orderedOn}`,
        d.expectedOn && `expected ${d.expectedOn}`,
      ]) || "price and supplier changed"
    }.`,
  facts: (d) => `${d.name}: ${d.changed.join(", ")} recorded.`,
  offered: (d) => `Offer ${d.count} made: ${d.total.toFixed(2)}${d.unpriced > 0 ? `, ${d.unpriced} lines without a price` : ""}.`,
  "offer-accepted": (d) => `Offer ${d.count} over ${d.total.toFixed(2)} accepted by ${d.by} on ${d.on}.`,
  "accessories-ordered": (d) => `On the order list for the wiring: ${d.items.map((i) => `${i.count} × ${i.name}`).join(", ")}.`,
  wishes: (d) =>
    `Wishes: ${list([
      ...d.changes.map((c) => `${WISH_WORD[c.what] ?? c.what} ${c.value === null || c.value === "" ? "left open" : c.value}`),
      d.fanShare !== undefined && `planned fan speed ${Math.round(d.fanShare * 100)} %`,
    ])}.`,
  schools: (d) => `Done this way: ${d.changes.map((c) => `${c.school}: ${c.answer}`).join(", ")}.`,
  setting: (d) =>
    `Firmware setting: ${[
      d.memoryProfile === undefined ? "" : `memory profile ${d.memoryProfile ? "on" : "off"}`,
      d.cpuFanWarning ? `CPU fan warning: ${d.cpuFanWarning}${d.because ? ` (${d.because})` : ""}` : "",
    ]
      .filter(Boolean)
      .join("; ")}.`,
  planned: (d) =>
    `Plan ${d.revision}, ${d.status}: ${d.placed} connections, ${d.free} wanted ${d.free === 1 ? "end" : "ends"} free, ${d.moved} moved. ${d.proof}`.trim(),
  "plan-proved": (d) => `Plan ${d.revision} is proved as it stands.`,
  plug: (d) => `${d.tag} (${d.name}) ${PLUG_WORD[d.state]} ${d.portName}${d.planned ? `, planned ${d.planned}` : ""}.`,
  "place-exchanged": (d) => `${d.tag} (${d.name}) is planned for ${d.portName} now: it changed places with ${d.with}.`,
  "place-lost": (d) => `${d.tag} (${d.name}) lost its place in ${d.portName}.`,
  fixed: (d) =>
    `${d.tag} (${d.name}) ${d.fixed ? "fixed in" : "no longer fixed in"} ${d.portName}${d.bumped.length > 0 ? `; ${d.bumped.join(", ")} free again` : ""}.`,
  "led-through": (d) => `${d.tag} (${d.name}) is led ${d.cutout === null ? "the usual way again" : `through the cut-out ${d.label}`}.`,
  pulled: (d) => `Pulled forward: ${d.title}, before ${d.before}.`,
  "let-go": () => "What was pulled by hand was let go of: the order is Imbra's again.",
  photo: (d) => `Photo of ${d.of}.`,
  step: (d) => `${d.title}: ${d.done ? "done" : "undone"}.`,
  note: (d) => d.text,
  skipped: (d) => d.text,
  problem: (d) => d.text,
  seen: (d) => `${d.what}: ${d.value}${d.unit}${d.asExpected ? ", as expected" : `; expected ${d.expected}${d.unit}`}.`,
  "fault-opened": (d) => `Fault ${d.number} opened: ${ended(d.what)}`,
  "fault-closed": (d) => `Fault ${d.number} closed: ${ended(d.finding)}`,
  tried: (d) => `${d.name}: ${d.result}.${d.closed.length > 0 ? ` Closed: fault ${d.closed.join(", ")}. Look at those lines again.` : ""}`,
  received: (d) =>
    `${d.name} arrived${d.serial ? `, serial ${d.serial}` : ""}${d.supplier ? `, from ${d.supplier}` : ""}${d.warrantyUntil ? `, covered until ${d.warrantyUntil}` : ""}${d.price === undefined ? "" : `, ${d.price.toFixed(2)}`}.`,
  tested: (d) => {
    const withWhat = d.with ? ` Tested with ${d.with}.` : "";
    return d.result === "passed"
      ? `${d.name} passed the bench test.${withWhat}`
      : `${d.name} is dead on arrival.${withWhat} The job waits for a replacement until ${d.waitUntil}.`;
  },
  refused: (d) =>
    `${d.name} ${{ damaged: "came damaged and goes back", wrong: "is another than ordered and goes back", missing: "was not in its box" }[d.why]}${d.serial ? `, serial ${d.serial}` : ""}.${d.words ? ` ${d.words}` : ""}`,
  replaced: (d) => `Replacement for ${d.name} arrived${d.serial ? `; the dead one had serial ${d.serial}` : ""}.`,
  "set-aside": (d) => `Accepted all the same: ${d.message} Reason: ${ended(d.reason)}`,
  soaking: () => "The soak has begun.",
  waiting: (d) => `The job waits for ${d.for}${d.until ? ` until ${d.until}` : ""}.`,
  "goes-on": () => "The job goes on.",
  "client-page": (d) => (d.on ? "A page for the client's eyes was switched on." : "The page for the client's eyes was withdrawn."),
  "came-back": (d) => `The machine of ${d.of} is here again: ${ended(d.says)} As built: parts and plugs as they left.`,
  "in-service": (d) => `It came back, as ${d.number}: ${ended(d.says)}`,
  leaving: (d) => `${d.what}: ${ended(d.says)}`,
  "handed-over": (d) => `Handed over.${d.open.length > 0 ? ` Open then: ${d.open.join("; ")}. Reason: ${ended(d.reason)}` : ""}`,
  reopened: (d) => `Opened again. Reason: ${ended(d.reason)}`,
  cancelled: (d) => `Cancelled. Reason: ${ended(d.reason)}`,
  details: (d) => `Changed: ${d.changes.map((c) => `${c.what} ${c.now ?? "none"}, was ${c.was ?? "none"}`).join("; ")}.`,
};

/** What happened, as one sentence of the log. One that nobody can word, of another version or spoilt, says so in its line. */
export function eventWords({ kind, data }: { kind: string; data: unknown }): string {
  try {
    const words = isEventKind(kind) ? (WORDS[kind] as (d: unknown) => string)(data) : undefined;
    if (words !== undefined && !/\b(undefined|NaN|\[object Object\])/.test(words))
      return typeof data === "object" && data !== null && "takesBack" in data ? `Taken back. ${words}` : words;
  } catch {
    // Data of another shape.
  }
  return `Something happened that this version of Imbra has no words for (${kind}).`;
}

export const isEventKind = (kind: string): kind is EventKind => Object.hasOwn(WORDS, kind);
