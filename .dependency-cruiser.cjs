// Dependencies point one way: app -> ui -> workers|server -> core, server -> db, cli -> core.
const layer = (name, from, notTo, comment) => ({
  name,
  severity: "error",
  comment,
  from: { path: from },
  to: { path: notTo },
});
// The rooms of the core in the order of the work: each may import those before it, never one after it.
const ROOMS = [
  "words",
  "quantity",
  "drawing",
  "parts",
  "project",
  "circuit",
  "plan",
  "build",
  "firmware",
  "bench",
  "checks",
  "wires",
  "idea",
  "patterns",
  "lesson",
  "course",
  "share",
  "review",
  "room",
  "formats",
  "sums",
];
const rooms = ROOMS.map((room, i) => ({
  name: `room-${room}`,
  severity: "error",
  comment: `${room} imports only rooms above it`,
  from: { path: `^src/core/${room}/`, pathNot: ["\\.test\\.ts$", "^src/core/plan/(advice|savings)/"] },
  to: { path: `^src/core/(${ROOMS.slice(i + 1).join("|") || "none"})/` },
}));
// Advice tries what could be done and asks the checks what it brings: the one look ahead, and never from the planner itself.
const advice = {
  name: "room-advice",
  severity: "error",
  comment: "advice and savings read the plan and the checks, nothing later",
  from: { path: "^src/core/plan/(advice|savings)/", pathNot: "\\.test\\.ts$" },
  to: { path: "^src/core/(build|firmware|bench|formats|sums)/" },
};

module.exports = {
  forbidden: [
    ...rooms,
    advice,
    layer(
      "core-alone",
      "^src/core",
      "^src/(db|server|workers|prove|cli|ui|app)",
      "core imports nothing outside itself",
    ),
    {
      name: "core-pure",
      severity: "error",
      comment: "core may not use Node, React, Next or the database",
      from: { path: "^src/core", pathNot: "\\.test\\.ts$" },
      to: { path: "^(node:|fs$|path$)|node_modules/(react|next|better-sqlite3)", dependencyTypesNot: ["type-only"] },
    },
    layer("db-below", "^src/db", "^src/(server|workers|cli|ui|app)", "db knows nothing above it"),
    layer("server-below", "^src/server", "^src/(workers|cli|ui|app)", "server sits under app"),
    layer("workers-below", "^src/workers", "^src/(db|server|cli|ui|app)", "workers only use core"),
    layer("prove-below", "^src/prove", "^src/(db|server|workers|cli|ui|app)", "the second solver only uses core"),
    layer("cli-beside", "^src/cli", "^src/(server|workers|ui|app)", "the command line only uses core"),
    {
      ...layer("cli-data", "^src/cli", "^src/db", "only what keeps the app's data reaches them"),
      from: { path: "^src/cli", pathNot: ["^src/cli/keep\\.ts$", "\\.test\\.ts$"] },
    },
    {
      ...layer("ui-below", "^src/ui", "^src/(db|server|cli|app)", "ui reaches the server over HTTP"),
      to: { path: "^src/(db|server|cli|app)", dependencyTypesNot: ["type-only"] },
    },
    { name: "no-cycles", severity: "error", from: { path: "^src" }, to: { circular: true } },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.json" },
  },
};
