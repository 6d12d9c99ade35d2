/** Numbered schema steps; the position in the list is the version. Never edit one that has shipped: add the next. */
export const MIGRATIONS: readonly string[] = [
  `
  CREATE TABLE projects (
    id TEXT PRIMARY KEY,
    title TEXT NOT NULL,
    document TEXT NOT NULL,
    version INTEGER NOT NULL,
    created_at TEXT NOT NULL,
    updated_at TEXT NOT NULL
  ) STRICT;
  CREATE INDEX projects_by_time ON projects (updated_at DESC);
  CREATE TABLE revisions (
    project_id TEXT NOT NULL REFERENCES projects (id) ON DELETE CASCADE,
    version INTEGER NOT NULL,
    document TEXT NOT NULL,
    summary TEXT NOT NULL,
    at TEXT NOT NULL,
    PRIMARY KEY (project_id, version)
  ) STRICT;
  CREATE TABLE settings (key TEXT PRIMARY KEY, value TEXT NOT NULL) STRICT;
  `,
  `
  CREATE TABLE own_parts (
    id TEXT PRIMARY KEY,
    document TEXT NOT NULL,
    updated_at TEXT NOT NULL
  ) STRICT;
  `,
  `
  CREATE TABLE attempts (
    id TEXT PRIMARY KEY,
    project_id TEXT NOT NULL REFERENCES projects (id) ON DELETE CASCADE,
    learner TEXT NOT NULL,
    level TEXT NOT NULL,
    seed INTEGER NOT NULL,
    plan TEXT NOT NULL,
    points INTEGER NOT NULL,
    measured INTEGER NOT NULL,
    best INTEGER NOT NULL,
    hints INTEGER NOT NULL,
    wrong INTEGER NOT NULL,
    minutes REAL NOT NULL,
    found INTEGER NOT NULL,
    at TEXT NOT NULL
  ) STRICT;
  CREATE INDEX attempts_by_time ON attempts (project_id, at DESC);
  `,
  `
  ALTER TABLE projects ADD COLUMN deleted_at TEXT;
  CREATE TABLE saves (
    project_id TEXT NOT NULL REFERENCES projects (id) ON DELETE CASCADE,
    save_id TEXT NOT NULL,
    version INTEGER NOT NULL,
    PRIMARY KEY (project_id, save_id)
  ) STRICT;
  `,
  // Clocks of buses whose board was taken out said nothing any more, and are refused by now.
  ["projects", "revisions"]
    .map(
      (table) => `
  UPDATE ${table} SET document = json_set(document, '$.buses', (
    SELECT json_group_array(json(b.value)) FROM json_each(document, '$.buses') b
    WHERE json_extract(b.value, '$.host') IN (SELECT json_extract(p.value, '$.ref') FROM json_each(document, '$.parts') p)
  ))
  WHERE CASE WHEN json_valid(document) THEN json_array_length(document, '$.buses') END > 0;
  `,
    )
    .join(""),
  `
  CREATE TABLE courses (
    id TEXT PRIMARY KEY,
    title TEXT NOT NULL,
    document TEXT NOT NULL,
    version INTEGER NOT NULL,
    updated_at TEXT NOT NULL
  ) STRICT;
  `,
  `
  CREATE TABLE rooms (
    id TEXT PRIMARY KEY,
    project_id TEXT NOT NULL REFERENCES projects (id) ON DELETE CASCADE,
    title TEXT NOT NULL,
    document TEXT NOT NULL,
    steps TEXT NOT NULL,
    plan TEXT NOT NULL,
    created_at TEXT NOT NULL
  ) STRICT;
  CREATE TABLE room_benches (
    room_id TEXT NOT NULL REFERENCES rooms (id) ON DELETE CASCADE,
    n INTEGER NOT NULL,
    code TEXT NOT NULL UNIQUE,
    control TEXT NOT NULL,
    PRIMARY KEY (room_id, n)
  ) STRICT;
  CREATE TABLE room_events (
    room_id TEXT NOT NULL,
    n INTEGER NOT NULL,
    id TEXT NOT NULL,
    at TEXT NOT NULL,
    did TEXT NOT NULL,
    PRIMARY KEY (room_id, n, id),
    FOREIGN KEY (room_id, n) REFERENCES room_benches (room_id, n) ON DELETE CASCADE
  ) STRICT;
  `,
];
