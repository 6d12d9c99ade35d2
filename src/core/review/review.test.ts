import { describe, expect, it } from "vitest";
import { circuitOf } from "../circuit";
import { remarksCsv } from "../formats";
import { beginPattern, patternById, PATTERNS } from "../patterns";
import {
  applyEdit,
  mergeProjects,
  readProject,
  writeProject,
  type Edit,
  type Project,
  type RemarkAt,
} from "../project";
import { catalogue } from "../testing";
import { remarkAt, remarkPlaces, remarksOf } from ".";

const start = beginPattern(patternById("light-and-button", PATTERNS)!, catalogue).project;
const edit = (p: Project, ...list: Edit[]) => list.reduce((q, e) => applyEdit(q, e, catalogue), p);
const remark = (id: string, at: RemarkAt, says = "look again"): Edit => ({
  type: "addRemark",
  remark: { id, at, by: "Bo", when: "2026-11-29T20:00:00Z", says },
});
const c = (p: Project) => circuitOf(p, catalogue);
const link = start.links.find((l) => [l.from, l.to].includes("SW1.1"))!;

describe("remarks on somebody else's plan", () => {
  const reviewed = edit(
    start,
    remark("a", { kind: "part", ref: "LED1" }, "which colour?"),
    remark("b", { kind: "wire", from: link.to, to: link.from }, "rather D2"),
    remark("c", { kind: "plan" }),
  );
  it("are told in words, with places to light, and go with the file", () => {
    expect(remarksOf(c(reviewed)).map((r) => [r.about, r.gone])).toEqual([
      ["Lamp (LED1)", false],
      [`the wire from ${link.to} to ${link.from}`, false],
      ["the whole plan", false],
    ]);
    const back = readProject(writeProject(reviewed), catalogue);
    expect(back.ok && back.project.remarks).toEqual(reviewed.remarks);
    expect(remarksCsv(c(reviewed))).toContain("which colour?");
  });
  it("are done with a word, opened again, taken out; what they were about may be gone, and they stay", () => {
    const done = edit(reviewed, { type: "closeRemark", id: "a", done: { by: "Ada", when: "now", says: "red" } });
    expect(remarksOf(c(done)).map((r) => r.remark.id)).toEqual(["b", "c", "a"]);
    expect(edit(done, { type: "closeRemark", id: "a", done: null }).remarks).toEqual(reviewed.remarks);
    const less = edit(reviewed, { type: "removePart", ref: "LED1" });
    expect(remarksOf(c(less)).find((r) => r.remark.id === "a")).toMatchObject({ about: "LED1", gone: true });
    const none = edit(reviewed, ...["a", "b", "c"].map((id): Edit => ({ type: "removeRemark", id })));
    expect("remarks" in none).toBe(false);
    expect(edit(start, { type: "closeRemark", id: "x", done: null })).toEqual(start);
  });
  it("can be about every part, wire and finding; the same one twice is one", () => {
    const places = remarkPlaces(c(start));
    expect(places.map((p) => p.at.kind)).toEqual(expect.arrayContaining(["plan", "part", "wire", "finding"]));
    const all = edit(start, ...places.map((p, i) => remark(`r${i}`, p.at)));
    expect(all.remarks).toHaveLength(places.length);
    expect(remarksOf(c(all)).every((r) => !r.gone)).toBe(true);
    expect(edit(all, remark("r0", { kind: "plan" })).remarks).toHaveLength(places.length);
    expect(remarkAt(c(start), "SW1.1")).toEqual({ kind: "part", ref: "SW1", pin: "1" });
    expect(remarkAt(c(start), "GND")).toEqual({ kind: "net", name: "GND" });
    expect(remarkAt(c(start), "LED1")).toEqual({ kind: "part", ref: "LED1" });
    expect(remarkAt(c(start), "what?")).toEqual({ kind: "plan" });
  });
  it("of two people are put together", () => {
    const mine = edit(start, remark("m", { kind: "plan" }, "mine"));
    const theirs = edit(start, remark("t", { kind: "plan" }, "theirs"));
    const merged = mergeProjects(start, mine, theirs);
    expect(merged.project.remarks!.map((r) => r.says).sort()).toEqual(["mine", "theirs"]);
  });
});
