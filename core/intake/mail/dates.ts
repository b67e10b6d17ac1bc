import { DAYS, DUE, MONTHS, WEEKDAYS } from "./vocabulary";

/** A moment that somebody named. */
export interface Due {
  /** `2026-12-18`. */
  day: string;
  /** `15:00`, where an hour was named. */
  hour?: string;
  /** The words that say it. */
  words: string;
}

const iso = (y: number, m: number, d: number): string | undefined => {
  const t = new Date(Date.UTC(y, m - 1, d));
  return t.getUTCMonth() === m - 1 && t.getUTCDate() === d ? t.toISOString().slice(0, 10) : undefined;
};

/** The day that is named in a text, as seen from `today` (`2026-12-01`): the next one of its name. */
export function dueIn(text: string, today: string): Due | undefined {
  const after = DUE.exec(text);
  if (!after) return undefined;
  const rest = text.slice(after.index);
  const [ty, tm, td] = today.split("-").map(Number) as [number, number, number];
  const next = (m: number, d: number) => {
    const here = iso(ty, m, d);
    return here && here >= today ? here : iso(ty + 1, m, d);
  };
  let day: string | undefined;
  const full = /\b(\d{4})-(\d{2})-(\d{2})\b/.exec(rest);
  const dotted = /(?<![\d.])(\d{1,2})\.\s?(\d{1,2})\.(?:\s?(\d{4}|\d{2})(?!\d))?/.exec(rest);
  const slashed = /(?<![\d/])(\d{1,2})\/(\d{1,2})\/(\d{4})\b/.exec(rest);
  if (full) day = iso(Number(full[1]), Number(full[2]), Number(full[3]));
  else if (dotted) {
    const y = dotted[3] ? Number(dotted[3].length === 2 ? `20${dotted[3]}` : dotted[3]) : undefined;
    day = y ? iso(y, Number(dotted[2]), Number(dotted[1])) : next(Number(dotted[2]), Number(dotted[1]));
  } else if (slashed) day = iso(Number(slashed[3]), Number(slashed[2]), Number(slashed[1]));
  for (const months of MONTHS)
    for (const [i, m] of months.entries()) {
      if (day) break;
      const name = m.length > 4 ? `${m.slice(0, 3)}(?:${m.slice(3)})?` : m;
      const r = new RegExp(
        `(?<!\\p{L})(?:(\\d{1,2})(?:st|nd|rd|th|\\.)?\\s+(?:of\\s+)?${name}|${name}\\s+(\\d{1,2})(?:st|nd|rd|th)?)(?!\\p{L})\\.?(?:,?\\s+(\\d{4}))?`,
        "iu",
      ).exec(rest);
      if (!r) continue;
      const d = Number(r[1] ?? r[2]);
      day = r[3] ? iso(Number(r[3]), i + 1, d) : next(i + 1, d);
    }
  if (!day) {
    const from = new Date(Date.UTC(ty, tm - 1, td));
    const plus = (n: number) => new Date(from.getTime() + n * 86_400_000).toISOString().slice(0, 10);
    for (const [w, n] of DAYS) if (new RegExp(`(?<!\\p{L})${w}(?!\\p{L})`, "iu").test(rest)) day = plus(n);
    for (const names of WEEKDAYS)
      for (const [i, w] of names.entries()) {
        const m = new RegExp(`(?<!\\p{L})(next\\s+|nächsten\\s+)?${w}(?!\\p{L})`, "iu").exec(rest);
        if (day || !m) continue;
        const ahead = (i - from.getUTCDay() + 7) % 7 || 7;
        day = plus(ahead);
      }
  }
  if (!day) return undefined;
  const clock =
    /(?<![\d.])(\d{1,2})[:.](\d{2})\s*(am|pm|uhr|h|o'clock)?(?!\d|\.\d)/i.exec(
      rest.replace(dotted?.[0] ?? "\u0000", " ").replace(full?.[0] ?? "\u0000", " "),
    ) ?? /(?<![\d.:])(\d{1,2})()\s*(am|pm|uhr|o'clock)\b/i.exec(rest);
  let hour: string | undefined;
  if (clock) {
    let h = Number(clock[1]);
    if (/pm/i.test(clock[3] ?? "") && h < 12) h += 12;
    if (/am/i.test(clock[3] ?? "") && h === 12) h = 0;
    if (h < 24 && Number(clock[2] || 0) < 60) hour = `${String(h).padStart(2, "0")}:${clock[2] || "00"}`;
  } else if (/\b(?:noon|midday|mittags?)\b/i.test(rest)) hour = "12:00";
  return { day, ...(hour ? { hour } : {}), words: text.trim() };
}
