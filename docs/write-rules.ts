/** Writes the handbook page of the rules: `npm run rules`. A test compares it with what the rules say now. */
import fs from "node:fs";
import { RULES } from "../src/core/checks";
import { cases } from "../src/core/checks/cases";
import { handbook } from "../src/core/checks/handbook";

fs.writeFileSync(new URL("rules.md", import.meta.url), handbook(RULES, cases));
