// Dependencies point one way: app -> ui -> workers|server -> core, server -> db, cli -> core.
const layer = (name, from, notTo, comment) => ({
  name,
  severity: "error",
  comment,
  from: { path: from },
  to: { path: notTo },
});
module.exports = {
  forbidden: [
    layer("core-alone", "^src/core", "^src/(db|server|workers|cli|ui|app)", "core imports nothing outside itself"),
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
    layer("cli-beside", "^src/cli", "^src/(db|server|workers|ui|app)", "the command line only uses core"),
    layer("ui-below", "^src/ui", "^src/(db|server|cli|app)", "ui reaches the server over HTTP"),
    { name: "no-cycles", severity: "error", from: { path: "^src" }, to: { circular: true } },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.json" },
  },
};
