import { isSilent, type SoldRow } from "./sold";

/** Where something that is missing is done. */
export type Where = "parts" | "wiring" | "bench" | "first-boot" | "faults" | "handover";

export interface Missing {
  id: string;
  what: string;
  where: Where;
  /** The machine does not leave with it, whoever says so. */
  stays?: true;
}

/** How the machine leaves the shop. */
export type Way = "collected" | "travels";

/** Photos that every machine leaves with: fixed places, so that two machines compare. */
export const PHOTO_PLACES = [
  { id: "front", what: "Front" },
  { id: "open", what: "Open, panel off" },
  { id: "behind", what: "Behind the tray" },
  { id: "lit", what: "Lit, running" },
  { id: "serials", what: "Serials and labels" },
] as const;
export type PhotoPlace = (typeof PHOTO_PLACES)[number]["id"];

/** What the record says of a machine at the moment somebody wants to hand it over. */
export interface Recorded {
  stops: readonly { id: string; message: string }[];
  /** Steps that are not done; with the reason where somebody left one out. */
  steps: readonly { id: string; title: string; skipped?: string | undefined }[];
  /** Lines of first boot that nobody has seen of the machine itself. */
  unseen: readonly { id: string; what: string }[];
  faults: readonly { number: number; title: string; state: string; known: boolean; simulated: boolean }[];
  /** Settings and things of the system that are open or otherwise than wanted. */
  setup: readonly { id: string; what: string; mustBeOut: boolean }[];
  soaked: boolean;
  promises: readonly { words: string; verdict: string }[];
  loans: readonly { what: string; owner: string }[];
  sold: readonly SoldRow[];
  photos: readonly string[];
  /** What is in the bag, and what of it somebody has ticked. */
  bag: readonly { what: string; count: number; ticked: boolean }[];
  way: Way | undefined;
  /** What has to be done for the way, and what of it is done. */
  packing: readonly { id: string; what: string; done: boolean }[];
  /** An electrical safety test: asked for by the shop, and its result. */
  safety: "not asked for" | "open" | "passed" | "failed";
  /** Serial numbers that the shop asks for and nobody has read. */
  noSerial: readonly string[];
}

const some = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;
/** So many are named; the others are counted. */
const NAMED = 3;
const list = (words: readonly string[]): string =>
  words.length <= NAMED ? words.join("; ") : `${words.slice(0, NAMED).join("; ")}; and ${words.length - NAMED} more`;

/** What keeps a machine here, each with where it is done; nothing: it can go. In the order in which hands would do it. */
export function missingOf(r: Recorded): Missing[] {
  const out: Missing[] = [];
  const put = (id: string, where: Where, what: string, stays = false) => out.push({ id, where, what, ...(stays ? { stays: true } : {}) });
  for (const s of r.stops) put(`stop ${s.id}`, "wiring", s.message);
  const skipped = r.steps.filter((s) => s.skipped !== undefined);
  const steps = r.steps.filter((s) => s.skipped === undefined);
  if (steps.length > 0) put("steps", "bench", `${some(steps.length, "step is", "steps are")} not done: ${list(steps.map((s) => s.title))}.`);
  for (const s of skipped) put(`skipped ${s.id}`, "bench", `Left out: ${s.title} (${s.skipped}).`);
  if (r.unseen.length > 0)
    put("unseen", "first-boot", `${some(r.unseen.length, "line", "lines")} of first boot nobody has seen: ${list(r.unseen.map((l) => l.what))}.`);
  for (const f of r.faults) if (f.state === "open" && !f.simulated) put(`fault ${f.number}`, "faults", `Fault ${f.number} is open: ${f.title}.`);
  for (const f of r.faults)
    if (f.state === "closed" && !f.simulated && !f.known)
      put(`cause ${f.number}`, "faults", `Fault ${f.number} was closed without a cause: ${f.title}.`);
  const out1 = r.setup.filter((s) => s.mustBeOut);
  const setup = r.setup.filter((s) => !s.mustBeOut);
  if (setup.length > 0)
    put(
      "setup",
      "first-boot",
      `${some(setup.length, "setting or thing of the system", "settings and things of the system")} not as wanted: ${list(setup.map((s) => s.what))}.`,
    );
  for (const s of out1) put(`off ${s.id}`, "first-boot", `${s.what} is still on it and comes off before it leaves.`);
  if (!r.soaked) put("soak", "first-boot", "No soak of this machine held.");
  for (const p of r.promises) if (p.verdict === "open") put(`promise ${p.words}`, "first-boot", `Promised and not proved: ${p.words}.`);
  for (const l of r.loans)
    put(`loan ${l.what} ${l.owner}`, "first-boot", `On loan in it: ${l.what} of ${l.owner}. It is out, and scanned, before the machine goes.`, true);
  if (r.noSerial.length > 0) put("serials", "parts", `No serial was read of: ${list(r.noSerial)}.`);
  const silent = r.sold.filter(isSilent);
  if (silent.length > 0)
    put(
      "sold",
      "handover",
      `${some(silent.length, "difference", "differences")} from what was sold without a word of the client's: ${list(silent.map((s) => s.sold || s.built))}.`,
    );
  const places = PHOTO_PLACES.filter((p) => !r.photos.includes(p.id));
  if (places.length > 0) put("photos", "handover", `No photo yet: ${places.map((p) => p.what.toLowerCase()).join("; ")}.`);
  const bag = r.bag.filter((b) => !b.ticked);
  if (bag.length > 0) put("bag", "handover", `Not seen in the bag: ${list(bag.map((b) => (b.count > 1 ? `${b.count} × ${b.what}` : b.what)))}.`);
  if (r.safety === "open") put("safety", "handover", "The electrical safety test is not recorded.");
  if (r.safety === "failed") put("safety", "handover", "The electrical safety test failed.", true);
  if (r.way === undefined) put("way", "handover", "Say whether it is collected or travels.");
  for (const p of r.packing) if (!p.done) put(`packing ${p.id}`, "handover", `${p.what}.`);
  return out;
}
