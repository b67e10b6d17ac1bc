import type { PartKind } from "../catalogue";
import { figuresFor, figuresIn, type Mail, type MailLine } from "./mail";

/** What somebody says of a line: it counts more than what was read. */
export interface Fix {
  /** The line by its text and its place among lines of the same text: what is typed above it moves nothing. */
  key: string;
  as?: MailLine["as"] | undefined;
  kind?: PartKind | undefined;
  count?: number | undefined;
  /** A part type of the shelf; `new`: none of it, made from its words. */
  type?: string | undefined;
}

/** The name of each line, in the order of the mail. */
export function keysOf(lines: readonly Pick<MailLine, "text">[]): string[] {
  const seen = new Map<string, number>();
  return lines.map((l) => {
    const n = seen.get(l.text) ?? 0;
    seen.set(l.text, n + 1);
    return `${n} ${l.text}`;
  });
}

/** The mail with what somebody corrected. `name` gives a part type's name and kind; what it does not know is left as it was read. */
export function corrected(mail: Mail, fixes: readonly Fix[], name: (id: string) => { name: string; kind: PartKind } | undefined): Mail {
  if (fixes.length === 0) return mail;
  const by = new Map(fixes.map((f) => [f.key, f]));
  const keys = keysOf(mail.lines);
  const lines = mail.lines.map((l, i): MailLine => {
    const f = by.get(keys[i] ?? "");
    if (!f) return l;
    const type = f.type && f.type !== "new" ? name(f.type) : undefined;
    const { known: _k, ask: _a, guessed: _g, ...rest } = l;
    // Whoever says which it is has answered the question; whoever says that it is a part says of which kind, or leaves it as it was.
    const base: MailLine = f.type === undefined ? l : rest;
    const kind = type?.kind ?? f.kind ?? l.kind;
    const as = f.as ?? (f.type !== undefined || f.kind !== undefined ? "part" : l.as);
    const words = l.as === "talk" && as !== "talk" ? l.text.replace(/^[\s\-*•]+/u, "").slice(0, 120) : l.words;
    return {
      ...base,
      as,
      words,
      ...(kind && as === "part" ? { kind } : {}),
      ...(l.as === "talk" && as === "part" ? { said: figuresFor(figuresIn(words), kind) } : {}),
      ...(as === "extra" && !l.extra ? { extra: "other" as const } : {}),
      count: f.count ?? l.count,
      ...(type && f.type ? { known: { id: f.type, name: type.name } } : {}),
    };
  });
  return { ...mail, lines };
}
