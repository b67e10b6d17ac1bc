/** The layers of docs/architecture.md: arrows point one way. */
const no = (name, from, to, comment) => ({ name, severity: "error", comment, from: { path: from }, to: { path: to } });

module.exports = {
  forbidden: [
    { name: "no-circles", severity: "error", from: {}, to: { circular: true } },
    no(
      "core-is-pure",
      "^core/",
      "^(app|features|ui|server|db|cli|workers|scripts)/|node_modules/(react|next|@mikro-orm|pg)/",
      "the core knows no screen, database or server",
    ),
    {
      name: "core-packages",
      severity: "error",
      comment: "the core depends on zod and jsonc-parser, on highs behind one file and on a CSV reader behind another",
      from: { path: "^core/", pathNot: "\\.test\\.ts$|^core/plan/solve/highs\\.ts$|^core/table/csv\\.ts$" },
      to: { dependencyTypes: ["npm"], pathNot: "node_modules/(zod|jsonc-parser)/" },
    },
    {
      name: "one-door-to-highs",
      severity: "error",
      from: { path: "^(app|features|ui|server|db|cli|workers|core)/", pathNot: "^core/plan/solve/highs\\.ts$|\\.test\\.ts$" },
      to: { path: "node_modules/highs/" },
    },
    no("ui-is-ours-alone", "^ui/", "^(app|features|server|db|core|cli|workers)/", "primitives and drawings know nothing of the trade"),
    no("db-below", "^db/", "^(app|features|ui|server|cli|workers)/", "the database layer knows the core only"),
    no("server-below-screens", "^server/", "^(app|features|ui|cli)/", "use cases know no screen"),
    no("app-is-thin", "^app/", "^(cli|core|workers)/", "routes go through features and server"),
    no("cli-on-core", "^cli/", "^(app|features|ui|server|db|workers)/", "the command line is the core alone"),
    {
      name: "core-doors",
      severity: "error",
      comment: "a folder's index.ts is its door",
      from: { path: "^(app|features|server|db|cli|workers|tests)/" },
      to: { path: "^core/[^/]+/.+", pathNot: "^core/[^/]+/index\\.ts$" },
    },
    {
      name: "core-doors-inside",
      severity: "error",
      from: { path: "^core/([^/]+)/", pathNot: "\\.test\\.ts$" },
      to: { path: "^core/([^/]+)/.+", pathNot: "^core/$1/|^core/[^/]+/index\\.ts$" },
    },
    {
      name: "solver-stays-off-screens",
      severity: "error",
      comment: "screens judge with core/wiring; only the server's worker and the command line solve",
      from: { path: "^features/" },
      to: { path: "^core/plan/" },
    },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.json" },
    enhancedResolveOptions: { exportsFields: ["exports"], conditionNames: ["import", "require", "node", "default", "types"] },
  },
};
