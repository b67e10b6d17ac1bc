/** What was measured for something that was promised. */
export interface Proof {
  /** Numbers: frames a second, dB(A), MT/s; left out: it was seen, or not. */
  value?: number | undefined;
  worst1?: number | undefined;
  /** Program, scene, resolution, settings, sync, minutes, room, panels. */
  conditions: string;
  /** Width by height of the picture, px. */
  pixels?: number | undefined;
  result: "measured" | "seen" | "not kept" | "not tested";
  why: string;
}

export interface Promised {
  about: string;
  words: string;
  value?: number | undefined;
}
export type Verdict = "kept" | "not kept" | "not tested" | "open";

/** Lower is better: quiet. All other numbers are least ones. */
const AT_MOST: ReadonlySet<string> = new Set(["quiet"]);

/** Does what was measured keep what was promised? */
export function verdictOf(p: Promised, proof: Proof | undefined): { verdict: Verdict; because: string } {
  if (!proof) return { verdict: "open", because: "Nobody has looked yet." };
  if (proof.result === "not tested") return { verdict: "not tested", because: proof.why };
  if (proof.result === "not kept") return { verdict: "not kept", because: proof.why };
  if (proof.result === "seen" || proof.value === undefined)
    return { verdict: "kept", because: proof.value === undefined ? "Seen." : `Seen to be so; measured ${proof.value}.` };
  if (p.value === undefined) return { verdict: "open", because: `Measured ${proof.value}; no number was promised. Say whether that keeps it.` };
  const kept = AT_MOST.has(p.about) ? proof.value <= p.value : proof.value >= p.value;
  const least = AT_MOST.has(p.about) ? "at most" : "at least";
  return { verdict: kept ? "kept" : "not kept", because: `Measured ${proof.value}, promised ${least} ${p.value}.` };
}

/** What cannot be: worst above average, a finer picture that is faster than a coarser one of the same program. A sentence each. */
export function absurdities(list: readonly { words: string; proof: Proof }[]): string[] {
  const out: string[] = [];
  for (const { words, proof } of list)
    if (proof.value !== undefined && proof.worst1 !== undefined && proof.worst1 > proof.value)
      out.push(`${words}: the worst 1 % (${proof.worst1}) is above the average (${proof.value}). One of them was read wrong.`);
  for (const a of list)
    for (const b of list) {
      const [x, y] = [a.proof, b.proof];
      if (a === b || x.value === undefined || y.value === undefined || !x.pixels || !y.pixels || x.pixels <= y.pixels) continue;
      if (program(a.words) === program(b.words) && x.value > y.value * 1.02)
        out.push(`${a.words} measures faster (${x.value}) at a finer picture than ${b.words} (${y.value}). One of them was measured otherwise.`);
    }
  return out;
}
const program = (words: string): string =>
  words
    .toLowerCase()
    .split(/[\d@,:(]/)[0]
    ?.trim() ?? "";
