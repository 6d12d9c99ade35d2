import fs from "node:fs";
import { describe, expect, it } from "vitest";
import { applyEdit, readProject, type Project } from "../../core/project";
import { catalogue } from "../../core/testing";
import { step } from "../step";
import { FRAME, makeView, type Slice } from "../view";
import { makeReceiver, Missed, UNKNOWN_PROJECT } from ".";
import { makeSender } from "./sender";

const demo = (name: string): Project => {
  const r = readProject(fs.readFileSync(`demo/${name}.lattice.json`, "utf8"), catalogue);
  if (!r.ok) throw new Error(name);
  return r.project;
};
/** What the step says, worked out here: the catalogue of the tests stands in for the worker's. */
const stepOf = (project: Project, says = "") => ({ project, view: makeView(project, catalogue), says });
/** As it goes between two threads. */
const wire = <T>(x: T): T => structuredClone(x);
const plain = (view: object, names: readonly Slice[]) =>
  wire(Object.fromEntries(names.map((n) => [n, (view as Record<string, unknown>)[n]])));

const WATCHED: readonly Slice[] = ["rows", "lattices", "parts"];

describe("page and worker", () => {
  it("a step arrives as it was meant, after any edit, for what is watched and for nothing else", () => {
    const [sender, receiver] = [makeSender(), makeReceiver()];
    let project = demo("rain-barrel");
    const first = receiver.unpack(wire(sender.pack(stepOf(project), undefined)), undefined) as ReturnType<typeof step>;
    expect(first.project).toEqual(project);
    expect(Object.keys(first.view).sort()).toEqual([...FRAME].sort());
    project = first.project;
    const seen = receiver.slices(wire(sender.look(makeView(project, catalogue), WATCHED)));
    expect(wire(seen)).toEqual(plain(makeView(project, catalogue), WATCHED));
    const edits = [
      { type: "setTitle", title: "Rain" },
      { type: "removePart", ref: "D1" },
      { type: "addPart", part: "discrete/led-red", ref: "D7", label: "Lamp" },
      { type: "setLabel", ref: "M1", label: "Echo" },
    ] as const;
    let shown = { ...first.view, ...seen };
    for (const edit of edits) {
      const [sent] = receiver.pack([project]);
      const [here] = sender.unpack([wire(sent)]) as [Project];
      expect(here).toEqual(project);
      const next = applyEdit(here, edit, catalogue);
      const got = receiver.unpack(wire(sender.pack(stepOf(next, edit.type), here)), project) as ReturnType<typeof step>;
      expect(got.says).toBe(edit.type);
      expect(got.project).toEqual(next);
      const names = [...new Set([...FRAME, ...WATCHED])];
      expect(wire(got.view)).toEqual(plain(makeView(next, catalogue), names));
      // What the edit did not touch is the very same object: nothing of it is drawn again.
      if (edit.type === "setTitle") for (const n of WATCHED) expect(got.view[n], n).toBe(shown[n]);
      shown = got.view;
      project = got.project;
    }
  });

  it("a project that did not change comes back as the very same", () => {
    const [sender, receiver] = [makeSender(), makeReceiver()];
    const opened = receiver.unpack(
      wire(sender.pack(stepOf(demo("moss-terrarium")), undefined)),
      undefined,
    ) as ReturnType<typeof step>;
    const [here] = sender.unpack(wire(receiver.pack([opened.project]))) as [Project];
    const got = receiver.unpack(wire(sender.pack({ ok: true, step: stepOf({ ...here }) }, here)), opened.project) as {
      step: { project: Project };
    };
    expect(got.step.project).toBe(opened.project);
  });

  it("a project goes over once, then by its number; one that is forgotten is asked for again", () => {
    const [sender, receiver] = [makeSender(), makeReceiver()];
    const project = demo("rain-barrel");
    const [whole] = receiver.pack([project]) as [{ value?: Project }];
    expect(whole.value).toBe(project);
    sender.unpack([wire(whole)]);
    const [number] = receiver.pack([project]) as [{ value?: Project }];
    expect(number.value).toBeUndefined();
    expect(sender.unpack([number])).toEqual([project]);
    expect(() => makeSender().unpack([number])).toThrow(UNKNOWN_PROJECT);
    expect(makeSender().unpack(wire(receiver.pack([project], true)))).toEqual([project]);
  });

  it("a sending that got lost is noticed, and made good by sending everything", () => {
    const [sender, receiver] = [makeSender(), makeReceiver()];
    const project = demo("rain-barrel");
    receiver.unpack(wire(sender.pack(stepOf(project), undefined)), undefined);
    sender.pack(stepOf({ ...project, title: "lost" }), undefined);
    const next = { ...project, title: "after it" };
    const sent = wire(sender.pack(stepOf(next), undefined));
    expect(() => receiver.unpack(sent, undefined)).toThrow(Missed);
    const got = receiver.unpack(wire(sender.again()), undefined) as ReturnType<typeof step>;
    expect(got.project).toEqual(next);
    expect(wire(got.view)).toEqual(plain(makeView(next, catalogue), FRAME));
    // And on from there.
    const last = { ...project, title: "and on" };
    expect(
      (receiver.unpack(wire(sender.pack(stepOf(last), undefined)), undefined) as { project: Project }).project,
    ).toEqual(last);
  });
});
