/** Writes the JSON Schema of the project file for other tools. `npm run schema`; a test keeps it current. */
import fs from "node:fs";
import path from "node:path";
import { projectJsonSchema } from "../src/core/project";

fs.writeFileSync(
  path.resolve(import.meta.dirname, "project.schema.json"),
  `${JSON.stringify(projectJsonSchema(), null, 2)}\n`,
);
