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
      comment: "the core depends on zod and jsonc-parser, on highs, a CSV reader and a package of matrices behind one file each",
      from: { path: "^core/", pathNot: "\\.test\\.ts$|^core/plan/solve/highs\\.ts$|^core/table/csv\\.ts$|^core/photo/ground\\.ts$" },
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
    // Floors of the server: a room knows those below it. docs/architecture.md draws them.
    no("server-kernel", "^server/kernel/", "^server/(?!kernel/)", "who sits there, what they may, words of a refusal: the ground floor"),
    no("server-build", "^server/build/", "^server/(?!kernel/|build/)", "a job as it is stored, read whole: on the kernel"),
    no("server-unit", "^server/unit/", "^server/(?!kernel/|build/|unit/)", "one action in one transaction: on kernel and build"),
    {
      name: "server-subjects",
      severity: "error",
      comment: "a use case knows no entry, paper or view",
      from: {
        path: "^server/(bench|faults|first-boot|handover|job|machine|offer|parts|people|photos|plan|receipt|schools|shelf|order)/",
        pathNot: "\\.test\\.ts$",
      },
      to: { path: "^server/(entries|documents|views|planner)/" },
    },
    no("server-documents", "^server/documents/", "^server/(entries|views|planner)/", "a paper is made of a job, not of a screen's view"),
    no("server-entries", "^server/entries/", "^server/(documents|views|planner)/", "what may wait on a device is carried out by subjects"),
    // Floors of the screens.
    {
      name: "features-frame",
      severity: "error",
      comment: "the ground floor of all screens: keys, dates, news, who works here",
      from: { path: "^features/frame/", pathNot: "\\.test\\.tsx?$" },
      to: { path: "^features/(?!frame/|actions/)" },
    },
    no("features-actions", "^features/actions/", "^features/(?!actions/)", "the doors that a browser may call, and nothing else"),
    no("features-device", "^features/device/", "^features/(?!actions/|frame/|device/)", "what a device keeps and sends"),
    no("features-drawing", "^features/drawing/", "^features/(?!frame/|drawing/)", "the machine's picture"),
    no("features-shared", "^features/shared/", "^features/(?!actions/|frame/|device/|drawing/|shared/)", "what several pages show"),
    {
      name: "features-pages",
      severity: "error",
      comment: "a page knows no other page; the job's rail and stages stand beside each of its pages",
      from: { path: "^features/(bench|benches|faults|first-boot|handover|intake|job|machine|order|parts|people|receipt|shelf|wiring)/" },
      to: {
        path: "^features/(bench|benches|faults|first-boot|handover|intake|job|machine|order|parts|people|receipt|shelf|wiring|shell)/",
        pathNot: "^features/$1/",
      },
    },
    {
      name: "plan-floors",
      severity: "error",
      comment: "cost below model, model below solve and answer, all below what is asked of a plan",
      from: { path: "^core/plan/(cost|model)/", pathNot: "\\.test\\.ts$" },
      to: { path: "^core/plan/(solve|answer|ask)/|^core/plan/planner" },
    },
    no("app-is-thin", "^app/", "^(cli|core|workers)/", "routes go through features and server"),
    no("cli-on-core", "^cli/", "^(app|features|ui|server|db|workers)/", "the command line is the core, papers and archives"),
    no("paper-on-core", "^paper/", "^(app|features|ui|server|db|cli|workers|archive)/", "what is printed is made of what the core says"),
    no("archive-on-core", "^archive/", "^(app|features|ui|server|db|cli|workers|paper)/", "a file that is read without Imbra knows the core alone"),
    no(
      "simulator-on-core",
      "^simulator/(?!.*\\.test\\.ts$)",
      "^(app|features|ui|server|db|workers)/",
      "a stand-in for an outside device knows the core alone",
    ),
    {
      name: "core-doors",
      severity: "error",
      comment: "a folder's index.ts is its door",
      from: { path: "^(app|features|server|db|cli|workers|simulator|tests)/" },
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
