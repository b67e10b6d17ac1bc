import { parseJson, parseWith, readBuild, readBuildText, typeLookup } from "../core/assembly";
import { assumed, contradictions, figureWords, PartType, rangeOf } from "../core/catalogue";
import { fromMail, type MailLine, MOST_CHARS, readMail, shelfIndex, understood } from "../core/intake";
import { mattersOf } from "../core/matters";
import { BadInput } from "./bad-input";

const lineJson = (l: MailLine) => ({
  line: l.line,
  text: l.text,
  as: l.as,
  kind: l.kind ?? l.extra ?? null,
  count: l.count,
  words: l.words,
  type: l.known?.id ?? null,
  known: l.known !== undefined,
  ...(l.guessed ? { guessed: true } : {}),
  ...(l.ask ? { ask: l.ask } : {}),
  said: l.said,
  price: l.price ?? null,
  origin: l.origin ?? null,
  ...(l.from ? { from: l.from } : {}),
  alternatives: l.alternatives,
});

/** A mail's text read: its lines, who, by when, for how much, the build, and what turns on what is only assumed. */
export async function intake(text: string, shelf: readonly PartType[], withinS: number) {
  if (text.trim() === "") throw new BadInput(["The text is empty. Give a mail, a table or a list of parts."]);
  if (text.length > 4 * MOST_CHARS) throw new BadInput([`The text has ${text.length} characters, more than any mail. Give the list alone.`]);
  const byId = new Map(shelf.map((t) => [t.id, t]));
  const mail = readMail(text, shelfIndex(shelf), new Date().toISOString().slice(0, 10));
  const made = fromMail(mail, (id) => byId.get(id));
  const read = readBuildText(JSON.stringify(made.build), [...shelf]);
  if (!read.ok) throw new Error(`the build of the mail does not read back: ${read.faults[0]}`);
  const matters = await mattersOf(read.build, typeLookup(read.build, [...shelf]), { withinMs: withinS * 1000 });
  const sums = understood(mail);
  const json = {
    lines: mail.lines.map((l, i) => ({ ...lineJson(l), ...(made.parts.get(i) ? { parts: made.parts.get(i) } : {}) })),
    client: mail.client,
    due: mail.due ? { ...mail.due, is: "wished" } : null,
    budget: mail.budget ?? null,
    total: sums.total ?? null,
    machines: mail.machines,
    promises: mail.promises,
    monitors: mail.monitors,
    understood: { parts: sums.parts, known: sums.known, new: sums.parts - sums.known },
    faults: mail.faults,
    build: made.build,
    assumed: matters.assumed,
    matters: matters.matters.map((m) => ({
      part: m.part,
      type: m.type,
      field: m.figure,
      question: m.question,
      assumed: m.value,
      because: m.because,
      range: m.range.map((r) => r.value),
      decides: m.range.map((r) => ({ value: r.value, what: r.decides })),
    })),
    untried: matters.untried,
  };
  return { json, stop: matters.matters.length > 0 || matters.untried.length > 0 || mail.lines.some((l) => l.ask !== undefined) };
}

/** A part type judged by itself: sound or not, and what of it is only assumed. */
export function typeJudged(text: string, shelf: readonly PartType[]) {
  const data = parseJson(text);
  if (!data.ok) throw new BadInput(data.faults);
  const parsed = parseWith(PartType, data.value);
  if (!parsed.ok) throw new BadInput(parsed.faults);
  const type = parsed.value;
  const whole = readBuild({ format: "imbra-build", version: 1, name: "type", partTypes: [type], parts: [{ id: "part", type: type.id }] }, [...shelf]);
  if (!whole.ok) throw new BadInput(whole.faults.map((f) => f.replace("partTypes[0].", "")));
  const odd = contradictions(type);
  const open = assumed(type).map((f) => ({
    field: f.id,
    word: f.word,
    value: type.figures?.[f.id]?.value,
    words: figureWords(f, type.figures?.[f.id]?.value ?? 0),
    because: type.figures?.[f.id]?.from ?? null,
    range: rangeOf(type, f),
    question: f.ask(type.name),
  }));
  return { json: { id: type.id, kind: type.kind, name: type.name, contradictions: odd, assumed: open }, stop: odd.length > 0 };
}
