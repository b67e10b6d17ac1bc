import type { Expectation } from "../machine";

/** What a person saw of a line. */
export interface Seen {
  line: string;
  asExpected: boolean;
}

/**
 * Does a line that went wrong belong to an incident? It does where both lean on something that nothing that works has cleared: what they
 * share may be to blame for both. Two that share nothing are two incidents, and neither silences the other.
 */
export function belongsTo(lines: readonly Expectation[], seen: readonly Seen[], incident: readonly string[], line: string): boolean {
  if (incident.includes(line)) return true;
  const at = new Map(lines.map((l) => [l.id, l]));
  const cleared = new Set(
    seen.flatMap((s) => {
      const l = at.get(s.line);
      // What is also seen of a machine that does not get that far clears nothing.
      return s.asExpected && l?.works && !l.silent ? l.leans.flatMap((e) => (l.spare?.includes(e.id) ? [] : [e.id])) : [];
    }),
  );
  const doubted = (id: string) => new Set(at.get(id)?.leans.flatMap((e) => (cleared.has(e.id) ? [] : [e.id])) ?? []);
  const mine = doubted(line);
  const group = (id: string) => at.get(id)?.group;
  // What leans on nothing that is known, such as a temperature, goes with its like.
  if (mine.size === 0) return incident.some((i) => doubted(i).size === 0 && group(i) === group(line));
  return incident.some((i) => [...doubted(i)].some((e) => mine.has(e)));
}
