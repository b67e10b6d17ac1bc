import { describe, expect, it } from "vitest";
import { cases } from "../../tests/cases";
import { pluggedDemo } from "../../tests/fixtures/demo";
import { advised, hunt } from "../../tests/fixtures/hunt";
import { simulate } from "../machine";
import {
  backwardOf,
  bestFirst,
  type Deed,
  deedsOf,
  type Evidence,
  entropyBits,
  type Hypothesis,
  isOff,
  leadsTo,
  minutesByShare,
  posterior,
  shareOf,
  suspicion,
  suspicionOf,
} from ".";

const one = (c: number, prior: number, shows: (l: string) => string | undefined): Hypothesis => ({ causes: [c], prior, shows });
const none: Hypothesis = { causes: [], prior: 1e-12, shows: () => undefined };
const looksAt = (id: string, minutes: number, line: string): Deed => ({ id, minutes, cures: new Set(), shows: (h) => h.shows(line) });

describe("inference", () => {
  it("half-split: of a chain of equal suspects the middle is looked at first (troubleshooting handbooks)", () => {
    const n = 16;
    // Stage i is bad: what comes after it is dark.
    const all = [none, ...Array.from({ length: n }, (_, i) => one(i, 1, (l) => (Number(l) >= i ? "dark" : "lit")))];
    const s = suspicionOf(all);
    const looks = Array.from({ length: n }, (_, i) => looksAt(`look ${i}`, 1, String(i)));
    const repairs = Array.from({ length: n }, (_, i): Deed => ({ id: `swap ${i}`, minutes: 50, cures: new Set([i]) }));
    const [first] = bestFirst(s, posterior(s, []).now, [...looks, ...repairs]);
    expect(["look 7", "look 8"]).toContain(first?.deed.id);
    let now = posterior(s, []).now;
    const seen: Evidence[] = [];
    while (Math.max(...now) < 0.6 && seen.length < 20) {
      const line = bestFirst(s, now, [...looks, ...repairs])[0]?.deed.id.slice("look ".length) ?? "";
      seen.push({ line, value: Number(line) >= 11 ? "dark" : "lit" });
      now = posterior(s, seen).now;
    }
    expect(now.indexOf(Math.max(...now))).toBe(12);
    expect(seen.length).toBeLessThanOrEqual(Math.log2(n) + 1);
  });
  it("falling probability over cost is the least expected of every order (Kadane and Simon 1977), against trying them all", () => {
    const orders = (list: number[]): number[][] =>
      list.length < 2 ? [list] : list.flatMap((x, i) => orders([...list.slice(0, i), ...list.slice(i + 1)]).map((r) => [x, ...r]));
    for (let k = 0; k < 8; k++) {
      const p = Array.from({ length: 6 }, (_, i) => ((i * 7 + k * 13) % 11) + 1);
      const cost = Array.from({ length: 6 }, (_, i) => ((i * 5 + k * 3) % 17) + 1);
      const sum = p.reduce((a, b) => a + b, 0);
      const s = suspicionOf([none, ...p.map((x, i) => one(i, x, () => undefined))]);
      const deeds = cost.map((c, i): Deed => ({ id: `d${i}`, minutes: c, cures: new Set([i]) }));
      const spent = (order: readonly number[]) => {
        let left = 1;
        let minutes = 0;
        for (const i of order) {
          minutes += left * ((cost[i] ?? 0) + 1);
          left -= (p[i] ?? 0) / sum;
        }
        return minutes;
      };
      const least = Math.min(...orders([0, 1, 2, 3, 4, 5]).map(spent));
      const { now } = posterior(s, []);
      expect(minutesByShare(s.hypotheses, now, deeds)).toBeCloseTo(least, 6);
      expect(bestFirst(s, now, deeds)[0]?.minutes).toBeCloseTo(least, 6);
    }
  });
  it("p over minutes and not bits a minute: the likely short repair comes first (0.9 and 0.1, 2 and 1 minutes)", () => {
    const s = suspicionOf([none, one(0, 0.9, () => undefined), one(1, 0.1, () => undefined)]);
    const deeds: Deed[] = [
      { id: "likely", minutes: 2, cures: new Set([0]) },
      { id: "short", minutes: 1, cures: new Set([1]) },
    ];
    expect(bestFirst(s, posterior(s, []).now, deeds)[0]?.deed.id).toBe("likely");
  });
  it("polybox: three multipliers, two adders, outputs 10 and 12 leave exactly {M1}, {A1}, {M2, M3}, {M2, A2} (de Kleer and Williams 1987)", () => {
    const parts = ["M1", "M2", "M3", "A1", "A2"];
    const run = (bad: Record<string, number>) => {
      const [m1, m2, m3] = [bad.M1 ?? 6, bad.M2 ?? 6, bad.M3 ?? 6];
      return { F: bad.A1 ?? m1 + m2, G: bad.A2 ?? m2 + m3 };
    };
    const values = Array.from({ length: 25 }, (_, v) => v);
    const sets = [...parts.keys()].flatMap((a) => [[a], ...[...parts.keys()].slice(a + 1).map((b) => [a, b])]);
    const all = sets.flatMap((set) =>
      (set.length === 1 ? values.map((v) => [v]) : values.flatMap((v) => values.map((w) => [v, w]))).map((vs): Hypothesis => {
        const out = run(Object.fromEntries(set.map((c, i) => [parts[c] ?? "", vs[i] ?? 0])));
        return { causes: set, prior: 1, shows: (l) => String(out[l as "F"]) };
      }),
    );
    const { was } = posterior(suspicionOf([none, ...all]), [
      { line: "F", value: "10" },
      { line: "G", value: "12" },
    ]);
    const shares = was.slice(1);
    const top = Math.max(...shares);
    const fit = [...new Set(all.filter((_, i) => (shares[i] ?? 0) > top / 2).map((h) => h.causes.map((c) => parts[c]).join()))].map((x) =>
      x.split(","),
    );
    const least = fit.filter((x) => !fit.some((o) => o.length < x.length && o.every((c) => x.includes(c))));
    expect(least.map((x) => x.join()).sort()).toEqual(["A1", "M1", "M2,A2", "M2,M3"]);
  });
  it("a look that splits in halves is worth one bit, and entropy never rises in expectation (Shannon)", () => {
    const s = suspicionOf([none, one(0, 1, () => "x"), one(1, 1, () => "y")]);
    const { now } = posterior(s, []);
    expect(entropyBits(now)).toBeCloseTo(1, 6);
    const deeds: Deed[] = [looksAt("look", 1, "l"), { id: "a", minutes: 9, cures: new Set([0]) }, { id: "b", minutes: 9, cures: new Set([1]) }];
    const c = bestFirst(s, now, deeds).find((x) => x.deed.id === "look");
    expect(c?.bits).toBeGreaterThan(0.8);
    expect(c?.bits).toBeLessThanOrEqual(1);
  });
});

const graph = await pluggedDemo("fs-1044");
const back = backwardOf(graph);
const singles = back.suspected.flatMap((s) => s.causes);

describe("the machine backward", () => {
  const { numRuns } = cases(20, 1);
  it("shares sum to one; what is true is among the suspects at every moment; following the advice ends at it", () => {
    const step = Math.max(1, Math.floor(singles.length / Math.max(12, numRuns)));
    for (let i = 0; i < singles.length; i += step) {
      const c = singles[i];
      if (!c) continue;
      const at = back.suspected.findIndex((s) => s.causes.includes(c));
      const h = hunt(graph, back, { [c.element]: c.mode }, advised(graph, back), {
        most: 40,
        check: (happened) => {
          const looks = happened.filter((x) => "line" in x);
          const s = suspicion(back, looks);
          const { was } = posterior(s, looks);
          expect(was.reduce((x, y) => x + y, 0)).toBeCloseTo(1, 9);
          expect([c.id, (shareOf(s.hypotheses, was, back.suspected.length)[at] ?? 0) > 0]).toEqual([c.id, true]);
        },
      });
      expect([c.id, h.ended, h.deeds]).toEqual([c.id, true, [...new Set(h.deeds)]]);
    }
  });
  it("one more true observation never makes the true cause impossible", () => {
    for (const [at, x] of [...back.suspected.entries()].slice(0, 30)) {
      const seen: { line: string; value: string }[] = [];
      for (const [line, o] of back.lines) {
        seen.push({ line, value: x.effect.get(line) ?? String(o.value) });
        const s = suspicion(back, seen);
        expect(shareOf(s.hypotheses, posterior(s, seen).now, back.suspected.length)[at] ?? 0).toBeGreaterThan(0);
      }
    }
  });
  it("the shares are those of plain Bayes over every hypothesis run forward, pairs among them", () => {
    for (const seen of [
      [{ line: "standby", value: "dark" }],
      [
        { line: "standby", value: "lit" },
        { line: "button", value: "starts" },
        { line: "picture", value: "none" },
      ],
      [
        { line: "standby", value: "lit" },
        { line: "turns:fan-rear:lead", value: "still" },
        { line: "turns:fan-floor:lead", value: "still" },
      ],
    ]) {
      const s = suspicion(back, seen);
      const ours = posterior(s, seen, (o) => isOff(back, o)).was;
      // By hand: every one of them forward anew, as it is plugged, and the rule written out.
      const weights = s.hypotheses.map((h) => {
        const causes = h.causes.map((c) => back.suspected[c]?.causes[0]);
        const modes = Object.fromEntries(causes.map((c) => [c?.element ?? "", c?.mode ?? ""]));
        const real = new Map(simulate(graph, { modes }).observables.map((o) => [o.id, String(o.value)]));
        return seen.reduce((w, o) => {
          const miss = isOff(back, o) ? 0.001 : 0.02;
          return w * (back.same(o.line, real.get(o.line) ?? "", o.value) ? 1 - miss : miss);
        }, h.prior);
      });
      const sum = weights.reduce((a, x) => a + x, 0);
      let off = 0;
      for (const [i, w] of weights.entries()) off += Math.abs((ours[i] ?? 0) - w / sum);
      expect([seen.at(-1), off < 0.02]).toEqual([seen.at(-1), true]);
    }
  });
  it("entropy never rises in expectation, whatever is looked at or done", () => {
    for (const [line, value] of [
      ["standby", "dark"],
      ["picture", "none"],
      ["turns:fan-rear:lead", "still"],
    ] as const) {
      const s = suspicion(back, [{ line, value }]);
      const { now } = posterior(s, [{ line, value }], (o) => isOff(back, o));
      const choices = bestFirst(s, now, deedsOf(back, new Map([[line, value]])), [line]);
      expect(choices.length).toBeGreaterThan(3);
      for (const c of choices) {
        const after = c.outcomes.reduce((n, o) => n + o.share * entropyBits(o.after), 0);
        // Hypotheses that hardly matter are left out of what is looked ahead: a rounding's worth.
        expect([c.deed.id, after <= entropyBits(now) + 0.02]).toEqual([c.deed.id, true]);
        expect(c.outcomes.reduce((n, o) => n + o.share, 0)).toBeCloseTo(1, 6);
      }
    }
  });
  it("what is cleared is cleared by what it says: none of its faults would have shown that", () => {
    const happened = [
      { line: "standby", value: "lit" },
      { line: "button", value: "starts" },
      { line: "turns:fan-rear:lead", value: "turns" },
      { line: "picture", value: "none" },
    ];
    const { cleared } = leadsTo(graph, { happened }, back);
    expect(cleared.length).toBeGreaterThan(5);
    for (const c of cleared) {
      const by = happened.find((h) => c.by === `${back.lines.get(h.line)?.what}: ${h.value}`);
      // Of what would explain that there is no picture; of the rest of it nothing is said.
      const value = (mode: string, line: string) => simulate(graph, { modes: { [c.id]: mode } }).observables.find((o) => o.id === line)?.value;
      for (const m of singles.filter((x) => x.element === c.id && value(x.mode, "picture") === "none")) {
        const shows = value(m.mode, by?.line ?? "");
        expect([c.id, m.mode, by !== undefined, shows === by?.value]).toEqual([c.id, m.mode, true, false]);
      }
    }
  });
  it("nothing is proposed where nothing was ever wrong; a closed machine is opened once, whatever is begun with", () => {
    const good = { happened: [{ line: "standby", value: "lit" }] };
    expect(leadsTo(graph, good, back)).toMatchObject({ next: null, others: [] });
    const happened = [{ line: "standby", value: "dark" }];
    const [open, closed] = [leadsTo(graph, { happened }, back), leadsTo(graph, { happened, opening: { minutes: 7, words: "Closed." } }, back)];
    const all = (a: typeof open) => [a.next, ...a.others].map((d) => [d?.id, d?.minutes, d?.expectedMinutes] as const);
    const outside = new Set([open.next, ...open.others].flatMap((d) => (d && ["look", "measure", "set right"].includes(d.kind) ? [d.id] : [])));
    expect(all(closed)).toEqual(all(open).map(([id, m, e]) => [id, (m ?? 0) + (outside.has(id ?? "") ? 0 : 7), (e ?? 0) + 7]));
    const inner = closed.others.find((d) => !outside.has(d.id));
    expect(inner?.access).toMatch(/^Closed\./);
  });
  it("what is no line, was seen in two ways, or is nothing of this machine is said, and the rest counts", () => {
    const a = leadsTo(
      graph,
      {
        happened: [
          { line: "no-such", value: "x" },
          { line: "standby", value: "lit" },
          { line: "standby", value: "dark" },
          { deed: "swap:nobody", result: "no change" },
        ],
      },
      back,
    );
    expect(a.notes).toEqual([
      expect.stringMatching(/^no-such: this machine's sheet has no such line/),
      expect.stringMatching(/was seen in two ways; the later counts: dark/),
      expect.stringMatching(/^swap:nobody: nothing of that name/),
    ]);
    expect(a.next?.id).toBe("set:mains");
  });
});
