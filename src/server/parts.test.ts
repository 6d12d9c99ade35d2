import fs from "node:fs";
import os from "node:os";
import path from "node:path";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { catalogue } from "../core/testing";
import { buildPart, draftFrom } from "../core/parts/own";
import { getDrawer, putDrawer } from "./drawer";
import { details, ownParts, partPage, removeOwnPart, saveOwnPart, summaries } from "./parts";
import { create } from "./projects";

const dir = fs.mkdtempSync(path.join(os.tmpdir(), "lattice-parts-"));
beforeAll(() => {
  process.env.LATTICE_DATA = dir;
});
afterAll(() => fs.rmSync(dir, { recursive: true, force: true }));

const mine = () => {
  const d = draftFrom(catalogue.get("module/hc-sr04")!, true);
  d.name = "Echo with a cable";
  return buildPart(d).part!;
};

describe("the catalogue over the wire", () => {
  it("refuses an own part under a shipped id", () => {
    const r = saveOwnPart({ ...mine(), id: "module/hc-sr04" });
    expect(r.status).toBe(400);
    expect(JSON.stringify(r.body)).toContain("ships with the app");
    expect(ownParts().map((p) => p.id)).not.toContain("module/hc-sr04");
  });
  it("gives summaries of all, and definitions by id or all boards", () => {
    expect(summaries()).toHaveLength(catalogue.ids.length);
    expect(details({ ids: "module/bme280,module/nothing,connector/header-9", boards: false }).map((p) => p.id)).toEqual(
      ["module/bme280", "connector/header-9"],
    );
    expect(details({ ids: null, boards: true }).every((p) => p.board)).toBe(true);
    expect(details({ ids: null, boards: true })).toHaveLength(34);
    expect(details({ ids: "x,".repeat(5000), boards: false })).toEqual([]);
  });
});

describe("own parts", () => {
  it("are kept, changed, listed and taken out", () => {
    expect(saveOwnPart(mine())).toEqual({ status: 200, body: { id: "module/echo-with-a-cable" } });
    saveOwnPart({ ...mine(), does: "Better" });
    expect(ownParts().map((p) => [p.id, p.does])).toEqual([["module/echo-with-a-cable", "Better"]]);
    expect(removeOwnPart("module/echo-with-a-cable").status).toBe(200);
    expect(removeOwnPart("module/echo-with-a-cable").status).toBe(404);
    expect(ownParts()).toEqual([]);
  });
  it("bad ones are refused with every mistake's path", () => {
    const r = saveOwnPart({
      ...mine(),
      colour: 1,
      levels: { main: { ...mine().levels.main, VIL: "0.9*V", VIH: "0.1*V" } },
    });
    expect(r.status).toBe(400);
    expect(JSON.stringify(r.body)).toContain("colour");
    const crossed = saveOwnPart({ ...mine(), levels: { main: { ...mine().levels.main, VIL: "0.9*V", VIH: "0.1*V" } } });
    expect(JSON.stringify(crossed.body)).toContain("VIL (4.5 V) must be below VIH (0.5 V)");
    expect(saveOwnPart(null).status).toBe(400);
    expect(saveOwnPart({ ...mine(), notes: Array(2000).fill("x".repeat(290)) }).status).toBe(413);
  });
});

describe("a part's page", () => {
  it("says where the part is used", () => {
    const page = partPage("module/bme280")!;
    expect(page.usedIn.map((u) => [u.title, u.refs])).toEqual([["Moss terrarium keeper", 1]]);
    expect(page.own).toBe(false);
    expect(partPage("module/none")).toBeNull();
    // A part that came in with somebody's project has a page too.
    const p = { ...(create({ title: "From a friend" }).body as { document: object }).document };
    create({
      document: {
        ...p,
        customParts: [{ ...mine(), id: "module/friends-part" }],
        parts: [{ ref: "M1", part: "module/friends-part" }],
      },
    });
    expect(partPage("module/friends-part")).toMatchObject({ own: true, usedIn: [{ title: "From a friend", refs: 1 }] });
    saveOwnPart(mine());
    expect(partPage("module/echo-with-a-cable")).toMatchObject({ own: true, usedIn: [] });
  });
});

describe("the drawer", () => {
  it("is kept, checked, and new projects start with it", () => {
    expect(getDrawer()).toEqual({ parts: {}, resistors_ohm: [], capacitors_F: [] });
    expect(
      putDrawer({ parts: { "discrete/led-red": 5 }, resistors_ohm: [220, 1000], capacitors_F: [1e-7] }).status,
    ).toBe(200);
    const made = create({ title: "New" });
    expect((made.body as { document: { drawer: unknown } }).document.drawer).toEqual(getDrawer());
    const bad = putDrawer({ parts: {}, resistors_ohm: [-5] });
    expect(bad.status).toBe(400);
    expect(JSON.stringify(bad.body)).toContain("resistors_ohm/0");
    expect(getDrawer().resistors_ohm).toEqual([220, 1000]);
  });
});
