import { type ParseError, parse as parseForgiving } from "jsonc-parser";
import type { z } from "zod";
import { isFamily, measurable, PartType } from "../catalogue";
import { buildGraph, typeLookup } from "./graph";
import { Build, MOST_LEADS, MOST_PART_TYPES } from "./schema";
import type { Graph } from "./shape";
import { atLatest } from "./versions";

/** Faults a person can act on, each a sentence that names the place in the file. */
export interface ReadFaults {
  ok: false;
  faults: string[];
}
export interface ReadBuild {
  ok: true;
  build: Build;
  graph: Graph;
}

const MOST_FAULTS = 40;
const MOST_CHARS = 4_000_000;

const where = (path: readonly PropertyKey[]) =>
  path.reduce<string>((s, p) => (typeof p === "number" ? `${s}[${p}]` : s === "" ? String(p) : `${s}.${String(p)}`), "") || "the file";

const valueAt = (data: unknown, path: readonly PropertyKey[]): unknown =>
  path.reduce<unknown>((v, p) => (v !== null && typeof v === "object" ? (v as Record<PropertyKey, unknown>)[p] : undefined), data);

const KIND: Record<string, string> = {
  object: "an object in curly brackets",
  array: "a list in square brackets",
  string: "text in quotes",
  number: "a number",
  boolean: "true or false",
  int: "a whole number",
  record: "an object in curly brackets",
};

/** One sentence for one Zod issue. */
function sentence(issue: z.core.$ZodIssue, data: unknown): string {
  const at = where(issue.path);
  const got = valueAt(data, issue.path);
  const last = String(issue.path.at(-1) ?? "");
  if (last === "family" && typeof got === "string" && !isFamily(got)) {
    return `${at}: there is no connector family "${got.slice(0, 60)}". docs/formats.md lists the families.`;
  }
  if (issue.code === "unrecognized_keys")
    return `${at}: unknown field ${issue.keys
      .slice(0, 5)
      .map((k) => `"${k.slice(0, 60)}"`)
      .join(", ")}. Remove it or correct its name.`;
  if (issue.code === "invalid_type" && got !== undefined)
    return `${at}: this is ${got === null ? "null" : Array.isArray(got) ? "a list" : `a ${typeof got}`}; it should be ${KIND[issue.expected] ?? issue.expected}.`;
  if (got === undefined) return `${at}: this field is missing.`;
  if (issue.code === "too_small" && typeof got === "number") return `${at}: ${got} is too small; at least ${String(issue.minimum)}.`;
  if (issue.code === "too_big")
    return `${at}: ${typeof got === "number" ? got : "this"} is too ${typeof got === "number" ? "large" : "long"}; at most ${String(issue.maximum)}.`;
  if (issue.code === "invalid_union") {
    const values = issue.errors.flat().flatMap((i) => (i.code === "invalid_value" ? i.values.map((v) => JSON.stringify(v)) : []));
    return values.length > 0 ? `${at}: it should be one of ${values.join("|")}.` : `${at}: nothing of this kind can stand here.`;
  }
  const expected = /^Invalid \w+: expected (one of )?/.exec(issue.message);
  if (expected) return `${at}: it should be ${expected[1] ?? ""}${issue.message.slice(expected[0].length)}.`;
  return `${at}: ${issue.message.replace(/\.$/, "")}.`;
}

export function parseWith<T extends z.ZodType>(schema: T, data: unknown): { ok: true; value: z.infer<T> } | ReadFaults {
  const parsed = schema.safeParse(data);
  if (parsed.success) return { ok: true, value: parsed.data };
  return { ok: false, faults: bounded(parsed.error.issues.map((i) => sentence(i, data))) };
}

function bounded(faults: string[]): string[] {
  const unique = [...new Set(faults)];
  return unique.length <= MOST_FAULTS ? unique : [...unique.slice(0, MOST_FAULTS), `the file: ${unique.length - MOST_FAULTS} more faults.`];
}

function repeated(ids: readonly string[], at: (i: number) => string): string[] {
  const first = new Map<string, number>();
  return ids.flatMap((id, i) => {
    const before = first.get(id);
    if (before === undefined) {
      first.set(id, i);
      return [];
    }
    return [`${at(i)}: "${id}" is already the id of ${at(before)}. Give it another.`];
  });
}

function typeFaults(types: readonly PartType[]): string[] {
  return types.flatMap((t, i) => {
    const at = `partTypes[${i}]`;
    const own = new Set([...t.ports.map((p) => p.id), ...t.leads.map((l) => l.id)]);
    const refers = (what: string, id: string | undefined) =>
      id !== undefined && !own.has(id) ? [`${at}.${what}: this part has no port or lead "${id}".`] : [];
    return [
      ...repeated([...t.ports.map((p) => p.id), ...t.leads.map((l) => l.id)], (n) =>
        n < t.ports.length ? `${at}.ports[${n}].id` : `${at}.leads[${n - t.ports.length}].id`,
      ),
      ...repeated(
        t.cables.map((c) => c.id),
        (n) => `${at}.cables[${n}].id`,
      ),
      ...t.cables.flatMap((c, n) =>
        repeated(
          c.ends.map((e) => e.id),
          (m) => `${at}.cables[${n}].ends[${m}].id`,
        ),
      ),
      ...t.ports.flatMap((p, n) => [
        ...refers(`ports[${n}].fedBy`, p.fedBy),
        ...refers(`ports[${n}].controlledBy`, p.controlledBy),
        ...refers(`ports[${n}].speedTo`, p.speedTo),
        ...p.displaces.flatMap((d) => refers(`ports[${n}].displaces`, d)),
      ]),
      ...t.leads.flatMap((l, n) => refers(`leads[${n}].fedBy`, l.fedBy)),
    ];
  });
}

/** No list of a build is longer. A longer one is refused before anything in it is read: a small file can hold a million empty brackets. */
const LONGEST_LIST = 1500;

/** Nothing in a build lies deeper. */
const DEEPEST = 20;
/** So many things are looked at in one step. */
const STEP = 10_000;

interface Inside {
  value: object;
  depth: number;
  key?: PropertyKey;
  of?: Inside;
}

function whereIs(at: Inside): string {
  const path: PropertyKey[] = [];
  for (let x: Inside | undefined = at; x?.key !== undefined; x = x.of) path.unshift(x.key);
  return where(path);
}

/** Lists that are too long or lie too deep to be read, each by its place. */
function* unreadable(data: unknown): Generator<void, string[]> {
  const out: string[] = [];
  const open: Inside[] = data !== null && typeof data === "object" ? [{ value: data, depth: 0 }] : [];
  let looked = 0;
  for (let next = open.pop(); next && out.length < MOST_FAULTS; next = open.pop()) {
    if (++looked % STEP === 0) yield;
    const size = Array.isArray(next.value) ? next.value.length : Object.keys(next.value).length;
    if (size > LONGEST_LIST) out.push(`${whereIs(next)}: ${size} entries. No list of a build is longer than ${LONGEST_LIST}.`);
    else if (next.depth > DEEPEST) out.push(`${whereIs(next)}: nothing in a build lies so deep.`);
    else
      for (const [k, value] of Object.entries(next.value as Record<string, unknown>))
        if (value !== null && typeof value === "object")
          open.push({ value, depth: next.depth + 1, key: Array.isArray(next.value) ? Number(k) : k, of: next });
  }
  return out;
}

/** Part types are most of a file and are read one by one; then the rest. */
function* parsing(given: unknown): Generator<void, ReturnType<typeof parseWith<typeof Build>>> {
  const not = yield* unreadable(given);
  if (not.length > 0) return { ok: false, faults: bounded(not) };
  const latest = atLatest(given);
  if ("fault" in latest) return { ok: false, faults: [latest.fault] };
  const { data } = latest;
  const list = data !== null && typeof data === "object" && "partTypes" in data ? data.partTypes : undefined;
  if (!Array.isArray(list) || list.length === 0) return parseWith(Build, data);
  if (list.length > MOST_PART_TYPES) return { ok: false, faults: [`partTypes: this is too long; at most ${MOST_PART_TYPES}.`] };
  const types: PartType[] = [];
  const issues: z.core.$ZodIssue[] = [];
  for (const [i, one] of list.entries()) {
    yield;
    const read = PartType.safeParse(one);
    if (read.success) types.push(read.data);
    else issues.push(...read.error.issues.map((x) => ({ ...x, path: ["partTypes", i, ...x.path] })));
  }
  yield;
  const rest = Build.safeParse({ ...(data as object), partTypes: [] });
  if (!rest.success) issues.unshift(...rest.error.issues);
  if (!rest.success || issues.length > 0) return { ok: false, faults: bounded(issues.map((i) => sentence(i, data))) };
  return { ok: true, value: { ...rest.data, partTypes: types } };
}

/**
 * Reads a build: parses it, resolves part types against itself and the shelf, and checks that every
 * reference leads somewhere. Returns sentences instead of throwing, whatever the input.
 */
export function readBuild(data: unknown, shelf: readonly PartType[]): ReadBuild | ReadFaults {
  const reading = readingBuild(data, shelf);
  for (;;) {
    const { done, value } = reading.next();
    if (done) return value;
  }
}

/** The same in small steps: whoever has others to serve goes on when they had their turn. */
export function* readingBuild(data: unknown, shelf: readonly PartType[]): Generator<void, ReadBuild | ReadFaults> {
  const parsed = yield* parsing(data);
  if (!parsed.ok) return parsed;
  yield;
  const build = parsed.value;
  const types = typeLookup(build, shelf);
  const faults = [
    ...repeated(
      build.parts.map((p) => p.id),
      (i) => `parts[${i}].id`,
    ),
    ...repeated(
      build.partTypes.map((t) => t.id),
      (i) => `partTypes[${i}].id`,
    ),
    ...typeFaults(build.partTypes),
    ...build.parts.flatMap((p, i) => (types(p.type) ? [] : [`parts[${i}].type: neither this file nor the shelf has a part type "${p.type}".`])),
    ...build.accessories.flatMap((a, i) =>
      types(a.type) ? [] : [`accessories[${i}].type: neither this file nor the shelf has a part type "${a.type}".`],
    ),
    ...["board", "case", "cpu"].flatMap((kind) => {
      const many = build.parts.filter((p) => types(p.type)?.kind === kind);
      return many.length > 1
        ? [
            `parts: ${many.length} parts are a ${kind} (${many
              .slice(0, 5)
              .map((p) => p.id)
              .join(", ")}). A build has one.`,
          ]
        : [];
    }),
  ];
  if (faults.length) return { ok: false, faults: bounded(faults) };

  const leadCount = build.parts.reduce((n, p) => {
    const t = types(p.type);
    return n + (t ? t.leads.length + t.cables.reduce((m, c) => m + c.count * (c.ends.length + c.outlets.length), 0) : 0);
  }, 0);
  if (leadCount > MOST_LEADS) {
    return {
      ok: false,
      faults: [`parts: ${leadCount} leads in all; a build may have ${MOST_LEADS}. Split it, or remove what does not belong to it.`],
    };
  }
  yield;
  const graph = buildGraph(build, types);
  yield;
  const later = [
    ...build.parts.flatMap((p, i) => {
      const type = types(p.type);
      const has = new Set(type ? measurable(type).map((m) => m.what) : []);
      return [
        ...(p.measured ?? []).flatMap((m, n) =>
          has.has(m.what) ? [] : [`parts[${i}].measured[${n}].what: a ${type?.name} has no length "${m.what}".`],
        ),
        ...repeated(
          (p.measured ?? []).map((m) => m.what),
          (n) => `parts[${i}].measured[${n}].what`,
        ),
      ];
    }),
    ...connectionFaults(build, graph),
  ];
  return later.length ? { ok: false, faults: bounded(later) } : { ok: true, build, graph };
}

/** References and contradictions of connections. Wrong but possible pairings are the checks' business, not faults. */
function connectionFaults(build: Build, graph: Graph): string[] {
  const seen = new Map<string, number>();
  const places = new Map<string, number>();
  return build.connections.flatMap((c, i) => {
    const at = `connections[${i}]`;
    const out: string[] = [];
    if (!graph.leads.has(c.lead)) out.push(`${at}.lead: there is no lead "${c.lead}".`);
    if (!graph.ports.has(c.port)) out.push(`${at}.port: there is no port "${c.port}".`);
    const before = seen.get(c.lead);
    if (before !== undefined) out.push(`${at}.lead: "${c.lead}" is already connected by connections[${before}]. A plug goes into one port.`);
    seen.set(c.lead, i);
    for (const pin of c.place ?? [0]) {
      const spot = `${c.port}#${pin}`;
      const taken = places.get(spot);
      if (taken !== undefined) out.push(`${at}.port: "${c.port}"${pin ? ` position ${pin}` : ""} is already taken by connections[${taken}].`);
      places.set(spot, i);
    }
    return out;
  });
}

/** Reads JSON text. The sentence for broken JSON names the line. */
export function readBuildText(text: string, shelf: readonly PartType[]): ReadBuild | ReadFaults {
  const data = parseJson(text);
  return data.ok ? readBuild(data.value, shelf) : data;
}

export function parseJson(text: string): { ok: true; value: unknown } | ReadFaults {
  if (text.length > MOST_CHARS) return { ok: false, faults: [`the file: ${text.length} characters; at most ${MOST_CHARS}.`] };
  if (text.trim() === "") return { ok: false, faults: ["the file: it is empty. A build file is one JSON object."] };
  try {
    return { ok: true, value: JSON.parse(text) };
  } catch {
    const errors: ParseError[] = [];
    parseForgiving(text, errors, { disallowComments: true });
    const line = text.slice(0, errors[0]?.offset ?? 0).split("\n").length;
    return { ok: false, faults: [`line ${line}: this is not JSON. Look for a missing comma, quote or bracket there.`] };
  }
}
