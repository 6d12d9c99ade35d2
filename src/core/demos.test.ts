import fs from "node:fs";
import { describe, expect, it } from "vitest";
import { assign } from "./plan/assign";
import { findings, verdict } from "./checks";
import { circuitOf } from "./circuit";
import { readProject } from "./project";
import { catalogue } from "./testing";

/** The demos show the three things that the app can say; their plans are the best there is. */
describe("the demo projects", () => {
  it.each([
    ["moss-terrarium", "Will not work yet: 1 fault"],
    ["rain-barrel", "Ready to wire"],
    ["beehive-scale", "Can be wired: 1 risk to know"],
  ])("%s: %s", (name, words) => {
    const text = fs.readFileSync(new URL(`../../demo/${name}.lattice.json`, import.meta.url), "utf8");
    const r = readProject(text, catalogue);
    if (!r.ok) throw new Error(JSON.stringify(r.problems));
    const c = circuitOf(r.project, catalogue);
    expect(verdict(c, findings(c)).words).toBe(words);
    // Planning again moves nothing.
    expect(assign(r.project, catalogue).project.links).toEqual(r.project.links);
  });
});
