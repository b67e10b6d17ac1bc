import loadHighs from "highs";
import { LEVELS, type Level } from "./levels";
import { type Engine, OutOfTime, type Piece, type Solution, type SolveOptions } from "./model";

/** The only file that knows `highs`. Loaded once a process; a throw of the module is turned into one short line. */
let loading: ReturnType<typeof loadHighs> | undefined;

function load() {
  loading ??= loadHighs();
  return loading;
}

const OPTIMAL = 7;
const INFEASIBLE = 8;

function sparse(piece: Piece) {
  const starts = [0];
  const indices: number[] = [];
  const values: number[] = [];
  for (const r of piece.rows) {
    for (const [v, c] of r.terms) {
      indices.push(v);
      values.push(c);
    }
    starts.push(indices.length);
  }
  return { starts, indices, values };
}

/** Checks a rounded answer against every row: the solver's tolerances must not leak into a plan. */
export function holds(piece: Piece, values: readonly number[]): boolean {
  return (
    values.every((v, i) => v >= 0 && v <= (piece.upper[i] ?? 1)) &&
    piece.rows.every((r) => {
      const sum = r.terms.reduce((s, [v, c]) => s + c * (values[v] ?? 0), 0);
      return sum >= r.lower - 1e-6 && sum <= r.upper + 1e-6;
    })
  );
}

const costAt = (piece: Piece, level: Level, values: readonly number[]) => piece.costs.reduce((s, c, i) => s + (c[level] ?? 0) * (values[i] ?? 0), 0);

/** Level by level: the optimum of each becomes a row for the next. */
export const highsEngine: Engine = {
  async solve(piece, levels, options) {
    const highs = await load();
    const n = piece.vars.length;
    const matrix = sparse(piece);
    let model: ReturnType<typeof highs.createModel>;
    try {
      model = highs.createModel({
        numCols: n,
        numRows: piece.rows.length,
        colCost: new Float64Array(n),
        colLower: new Float64Array(n),
        colUpper: Float64Array.from(piece.upper),
        rowLower: Float64Array.from(piece.rows, (r) => r.lower),
        rowUpper: Float64Array.from(piece.rows, (r) => r.upper),
        matrix: {
          format: "csr",
          numRows: piece.rows.length,
          numCols: n,
          starts: Int32Array.from(matrix.starts),
          indices: Int32Array.from(matrix.indices),
          values: Float64Array.from(matrix.values),
        },
        integrality: new Int32Array(n).fill(highs.constants.variableType.integer),
      });
    } catch (e) {
      throw new Error(`The solver refused the model: ${shortly(e)}`);
    }
    try {
      model.options.set({ output_flag: false, mip_rel_gap: 0, mip_abs_gap: 0.999, random_seed: 0 });
      return solveLevels(highs, model, piece, levels, options);
    } catch (e) {
      if (e instanceof OutOfTime) throw e;
      throw new Error(`The solver failed: ${shortly(e)}`);
    } finally {
      model.dispose();
    }
  },
};

type Highs = Awaited<ReturnType<typeof loadHighs>>;
type HighsModel = ReturnType<Highs["createModel"]>;

function solveLevels(
  highs: Highs,
  model: HighsModel,
  piece: Piece,
  levels: readonly Level[],
  { deadlineS, start, beat, toFirstCost, onLevel }: SolveOptions,
): Solution | undefined {
  const n = piece.vars.length;
  const until = performance.now() + deadlineS * 1000;
  // Everything free is an answer, if a poor one: a plan comes out whatever the time.
  const nothing = piece.rest.map((r) => (r ? 1 : 0));
  let values: number[] | undefined = [start, nothing].find((v): v is number[] => v !== undefined && holds(piece, v));
  let provedTo: Level | undefined;
  // Still level with what is to be beaten; once better, it stays better.
  let tied = beat !== undefined;
  let passed = 0;
  const todo: (Level | undefined)[] = levels.length > 0 ? [...levels] : [undefined];
  for (const level of todo) {
    if (level) onLevel?.(level);
    const cost = piece.costs.map((c) => (level ? (c[level] ?? 0) : 0));
    const solvedAtBound = values !== undefined && level !== undefined && costAt(piece, level, values) === 0;
    if (!solvedAtBound) {
      for (let i = 0; i < n; i++) model.changeColCost(i, cost[i] ?? 0);
      if (values) model.setSolution({ colValue: Float64Array.from(values) });
      model.zeroAllClocks();
      model.options.set("time_limit", Math.max(0.05, (until - performance.now()) / 1000));
      model.run();
      const status: number = model.getModelStatus();
      if (status === INFEASIBLE && !values) return undefined;
      if (status !== OPTIMAL) {
        const found = Array.from(model.getSolution().colValue, Math.round);
        if (found.length === n && holds(piece, found)) values = found;
        if (!values) throw new OutOfTime(`no plan found in time (status ${status})`);
        // The order of names only breaks ties: what costs anything is proved all the same.
        return { values, proved: level === "canonical", settled: false, ...(provedTo ? { provedTo } : {}) };
      }
      values = Array.from(model.getSolution().colValue, Math.round);
      if (!holds(piece, values)) throw new Error("an answer that breaks a rule");
    }
    if (level && values) {
      const best = costAt(piece, level, values);
      const used = cost.flatMap((c, i) => (c === 0 ? [] : [{ i, c }]));
      model.addRow(-highs.infinity, best, { indices: used.map((u) => u.i), values: used.map((u) => u.c) });
      provedTo = level;
      if (toFirstCost && best > 0) break;
      if (beat && tied) {
        // Levels that this piece cannot cost at all lie between: there it costs nothing.
        while (LEVELS[passed] !== level) if ((beat[LEVELS[passed++] ?? level] ?? 0) > 0) tied = false;
        passed++;
        const bar = beat[level] ?? 0;
        if (tied && best > bar && level !== "canonical") return undefined;
        if (best < bar) tied = false;
      }
    }
  }
  if (!values) throw new Error("nothing to solve");
  return { values, proved: true, ...(provedTo ? { provedTo } : {}) };
}

/** The module prints its whole minified text on an uncaught throw; keep one line. */
const shortly = (e: unknown) => (e instanceof Error ? e.message : String(e)).split("\n")[0]?.slice(0, 200) ?? "";
