/** Writes the JSON Schemas of the project file and the part file for other tools. `npm run schema`; tests keep them current. */
import fs from "node:fs";
import path from "node:path";
import { partJsonSchema } from "../src/core/parts/catalogue";
import { projectJsonSchema } from "../src/core/project";

const write = (name: string, schema: unknown) =>
  fs.writeFileSync(path.resolve(import.meta.dirname, name), `${JSON.stringify(schema, null, 2)}\n`);

write("project.schema.json", projectJsonSchema());
write("part.schema.json", partJsonSchema());
