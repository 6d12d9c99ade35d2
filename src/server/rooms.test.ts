import fs from "node:fs";
import os from "node:os";
import path from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { BOARD5, CABLE, make, USB } from "../core/testing";

const dir = fs.mkdtempSync(path.join(os.tmpdir(), "lattice-rooms-"));
let rooms: typeof import("./rooms");
let courses: typeof import("./courses");
let classRules: typeof import("./class-rules");
let projects: typeof import("./projects");
let project = "";
beforeAll(async () => {
  process.env.LATTICE_DATA = dir;
  [rooms, courses, classRules, projects] = await Promise.all([
    import("./rooms"),
    import("./courses"),
    import("./class-rules"),
    import("./projects"),
  ]);
  const made = projects.create({
    document: make(
      [BOARD5, USB, { ref: "LED1", part: "discrete/led-red", label: "Lamp" }],
      [CABLE, ["LED1.A", "B1.D7"], ["LED1.K", "B1.GND"]],
    ),
  });
  project = (made.body as { id: string }).id;
});
afterAll(() => fs.rmSync(dir, { recursive: true, force: true }));

const tick = (n: number, of: string, ago_ms = 0) => ({
  id: `event-${String(n).padStart(5, "0")}`,
  ago_ms,
  did: { kind: "tick", list: "wires", of, done: true },
});
type View = import("./rooms").RoomView;
const look = (id: string) => rooms.readRoom(id, 2).body as View;

describe("rooms", () => {
  it("outlive the server: what was told before is folded again from the disk", () => {
    const { id } = rooms.openRoom({ project, benches: 3 }).body as { id: string };
    const { benches, steps } = look(id);
    const { code } = benches[1]!;
    expect(new Set(benches.map((b) => b.code)).size).toBe(3);
    rooms.talk(code, { events: [tick(1, steps[0]!.id, 60_000), tick(2, steps[1]!.id, 30_000)], rev: -1 });
    rooms.tellRoom(id, { bench: 2, do: { kind: "hint", text: "black first" } });
    const before = look(id).benches[1]!;
    rooms.forgetRooms();
    const after = look(id).benches[1]!;
    expect({ ...after, here: true }).toEqual({ ...before, here: true });
    expect(after.state).toMatchObject({ done: 2, at: { step: 3 } });
    // The same told again by a bench that never heard the answer.
    const again = rooms.talk(code, { events: [tick(2, steps[1]!.id)], rev: 1 });
    expect(again).toMatchObject({ status: 200, body: { got: ["event-00002"], control: null } });
    expect(look(id).benches[1]!.state.since).toBe(before.state.since);
    expect(rooms.enterBench(code)).toMatchObject({ status: 200, body: { n: 2, entries: { length: 2 } } });
  });
  it("the plan of a room stays as it was, whatever becomes of the project; both go with it for good", () => {
    const { id } = rooms.openRoom({ project, benches: 1 }).body as { id: string };
    const { benches, steps } = look(id);
    const stored = projects.get(project).body as { version: number; document: { title: string } };
    projects.save(project, {
      base: stored.version,
      document: { ...stored.document, title: "Another title", links: [] },
    });
    expect((rooms.enterBench(benches[0]!.code).body as { document: { links: unknown[] } }).document.links).toHaveLength(
      3,
    );
    expect(rooms.removeRoom(id).status).toBe(200);
    expect(rooms.talk(benches[0]!.code, { events: [tick(9, steps[0]!.id)], rev: 0 }).status).toBe(404);
    expect(rooms.readRoom(id).status).toBe(404);
    expect(rooms.removeRoom(id).status).toBe(404);
  });
  it("a page that goes wild fills no disk", () => {
    const { id } = rooms.openRoom({ project, benches: 1 }).body as { id: string };
    const { code } = look(id).benches[0]!;
    let status = 200;
    for (let k = 0; k < 30 && status === 200; k++)
      status = rooms.talk(code, {
        events: Array.from({ length: 200 }, (_, i) => tick(1000 * k + i, `w${i}`)),
        rev: 0,
      }).status;
    expect(status).toBe(413);
    // What it says of itself is text, whatever it is.
    const csv = rooms.roomCsv(id).body as { csv: string };
    expect(csv.csv.split("\n").length).toBeGreaterThan(1000);
  });
  it("cells of the table never begin a formula", () => {
    const { id } = rooms.openRoom({ project, benches: 1 }).body as { id: string };
    const { code } = look(id).benches[0]!;
    rooms.talk(code, {
      events: [{ id: "event-formula", ago_ms: 0, did: { kind: "hand", up: true, why: "=1+1" } }],
      rev: 0,
    });
    expect((rooms.roomCsv(id).body as { csv: string }).csv).not.toMatch(/,=1\+1/);
  });
});

describe("courses", () => {
  it("are kept over the version that they were based on, and told what is wrong with them", () => {
    const { id, version, course } = courses.createCourse({ title: "Autumn" }).body as {
      id: string;
      version: number;
      course: import("../core/course").Course;
    };
    const next = { ...course, lessons: [{ project, week: 2, stays: false }] };
    expect(courses.saveCourse(id, { base: version, course: next })).toEqual({ status: 200, body: { version: 2 } });
    expect(courses.saveCourse(id, { base: version, course })).toMatchObject({ status: 409, body: { version: 2 } });
    expect(courses.readCourse(id)).toMatchObject({ body: { course: next } });
    expect(courses.saveCourse(id, { base: 2, course: { ...next, benches: 0 } })).toMatchObject({ status: 400 });
    expect(courses.createCourse({ title: "  " }).status).toBe(400);
    expect(Object.keys((courses.courseFile(id).body as { projects: object }).projects)).toEqual([project]);
    expect(courses.removeCourse(id).status).toBe(200);
    expect(courses.readCourse(id).status).toBe(404);
  });
});

describe("rules that a class has settled", () => {
  it("go into new projects until they are let free", () => {
    const settled = {
      rules: { buttonPull: "external-up" as const },
      fixed: { by: "7b", keys: ["buttonPull" as const] },
    };
    expect(classRules.putClassRules(settled).status).toBe(200);
    const born = projects.create({ title: "New" }).body as { document: object };
    expect(born.document).toMatchObject({ houseRules: settled.rules, fixedRules: settled.fixed });
    expect(classRules.putClassRules({ rules: {}, fixed: { by: "", keys: [] } }).status).toBe(400);
    expect(classRules.putClassRules(null).status).toBe(200);
    expect(projects.create({ title: "Free" }).body).not.toHaveProperty("document.fixedRules");
  });
});
