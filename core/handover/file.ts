import { type Graph, isDone, type TypeLookup } from "../assembly";
import { checkAll } from "../checks";
import { asExpected, powerOn } from "../machine";
import { Agreed, offerOf } from "../offer";
import { orderOf } from "../order";
import { bagOf } from "./bag";
import { packingOf } from "./packing";
import { missingOf, type Recorded } from "./ready";
import { soldAgainstBuilt, withoutLaidIn } from "./sold";

type Told = NonNullable<Graph["build"]["handover"]>;
const NOTHING: Told = { words: {}, promises: [], photos: [], bag: [], packed: [], loans: [], soaked: false };

/** What a file says that was sold, or in a sentence why it does not. */
function soldOf(told: Told): { sold?: Agreed; faults: string[] } {
  if (told.sold === undefined) return { faults: [] };
  const read = Agreed.safeParse(told.sold);
  return read.success
    ? { sold: read.data, faults: [] }
    : { faults: read.error.issues.slice(0, 10).map((i) => `handover.sold.${i.path.join(".")}: ${i.message}.`) };
}

/** What `handover FILE` prints: what keeps the machine here, what was sold beside what is in it, what goes into the bag. */
export function handoverJson(graph: Graph, shelf: TypeLookup = () => undefined) {
  const { build } = graph;
  const told = build.handover ?? NOTHING;
  const { sold, faults } = soldOf(told);
  const seen = new Map([...(build.readings ?? []), ...(build.observations ?? [])].map((o) => [o.line, o.value]));
  const power = powerOn(graph);
  const types = (id: string) => [...graph.parts.values()].find((p) => p.type.id === id)?.type ?? shelf(id);
  const now = sold && offerOf(build, types, { ...sold, due: sold.due });
  const rows = sold && now ? soldAgainstBuilt(sold, withoutLaidIn(build, now, sold), types, told.promises, told.words) : [];
  const bag = bagOf(graph);
  const packing = packingOf(graph, told.way);
  const otherwise = power.lines.filter((l) => {
    const value = seen.get(l.id);
    return value !== undefined && !asExpected(l, value);
  });
  const recorded: Recorded = {
    stops: checkAll(graph).filter((f) => f.severity === "stop"),
    steps: orderOf(graph)
      .steps.filter((s) => !s.done)
      .map((s) => ({ id: s.id, title: s.title })),
    unseen: power.lines.filter((l) => !seen.has(l.id)),
    faults: otherwise.map((l, i) => ({
      number: i + 1,
      title: `${l.what}: ${seen.get(l.id)}, expected ${l.expected}`,
      state: "open",
      known: false,
      simulated: false,
    })),
    setup: [],
    soaked: told.soaked,
    promises: told.promises,
    loans: told.loans,
    sold: rows,
    photos: told.photos,
    bag: bag.map((b) => ({ ...b, ticked: told.bag.includes(b.what) })),
    way: told.way,
    packing: packing.map((p) => ({ ...p, done: told.packed.includes(p.id) })),
    safety: told.safety ?? "not asked for",
    noSerial: [],
  };
  const missing = missingOf(recorded);
  return {
    ready: missing.length === 0 && faults.length === 0,
    missing: missing.map(({ id, what, where, stays }) => ({ id, what, where, ...(stays ? { stays } : {}) })),
    soldAgainstBuilt: rows.map(({ id, sold: s, built, state, cents, word }) => ({ id, sold: s, built, state, difference: cents / 100, word })),
    bag,
    packing,
    plugged: build.connections.filter(isDone).length,
    ...(faults.length > 0 ? { left: faults } : {}),
  };
}
