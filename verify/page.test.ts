import { describe, expect, it } from "vitest";
import { MODELS } from "../src/core/bench/models";
import { circuitOf } from "../src/core/circuit";
import { micropython } from "../src/core/firmware/targets/micropython";
import { sketch } from "../src/core/firmware/targets/sketch";
import { assign } from "../src/core/plan/assign";
import { catalogue, make, USB } from "../src/core/testing";
import { runOnHost } from "./host/compile";
import { runProgram } from "./micropython/run";

const planned = (board: string, radio: string, label = 'Air <b>&amp;"x"') => {
  const parts = [
    { ref: "B1", part: board, options: { radio } },
    USB,
    { ref: "M1", part: "module/aht20", label },
    { ref: "SW1", part: "discrete/button", label: "Go" },
  ];
  return circuitOf(assign(make(parts as never), catalogue).project, catalogue);
};
const MODEL = MODELS.find((m) => m.part === "module/aht20")!;
const NETWORK = { path: "wlan.py", text: 'NAME = "Home"\nPASSWORD = "secret"\n' };
const ask = (path: string) => `"GET ${path} HTTP/1.1\\r\\nHost: x\\r\\n\\r\\n"`;

async function run(world: string, own = [NETWORK], c = planned("board/esp32-thirtyeight", "true")) {
  const bus = new Map([[0x38, MODEL.make(MODEL.worlds[0]!, {})]]);
  const files = micropython.files(c);
  // What shipped is never what the person fills in.
  expect(files.map((f) => f.path)).not.toContain("wlan.py");
  const r = await runProgram(
    [...files, ...own],
    "main.py",
    `import network, socket\nclock.END[0] = 8000\n${world}`,
    bus,
  );
  return { r, answers: r.lines.filter((l) => l.startsWith("ANSWER ")).map((l) => l.slice(7)) };
}

describe("readings on the local network", () => {
  it("a page and its JSON, with labels as words, and nothing else", async () => {
    const { r, answers } = await run(
      `socket.ASKS += [(3000, ${ask("/")}), (3500, ${ask("/json")}), (4000, ${ask("/pins?x=1")}), (4500, "")]`,
    );
    expect(r.lines).toContain("CONNECT Home secret");
    expect(r.lines).toContain("page http://192.0.2.7/");
    const [page, json, other, empty] = answers as [string, string, string, string];
    expect(page).toMatch(/^HTTP\/1\.0 200 OK\|Content-Type: text\/html/);
    expect(page).toContain("Air &lt;b&gt;&amp;amp;");
    expect(page).not.toContain("<b>");
    expect(page).toMatch(/<td>-?[\d.]+ C<\/td>/);
    expect(page).toMatch(/<\/html>$/);
    const body = JSON.parse(json.split("||")[1]!) as Record<string, string>;
    expect(Object.keys(body)).toHaveLength(3);
    expect(Object.entries(body).find(([k]) => /^Go/.test(k))?.[1]).toBe("0");
    expect(other).toMatch(/^HTTP\/1\.0 404/);
    expect(empty).toMatch(/^HTTP\/1\.0 200/);
    // The rest goes on beside it.
    expect(r.lines.filter((l) => /running \d s$/.test(l)).length).toBeGreaterThanOrEqual(7);
  });
  it("a network that comes late, goes and comes back; somebody who says nothing", async () => {
    const { r, answers } = await run(
      `network.THERE_AT[:] = [(6000, True), (4000, False), (2000, True)]\nsocket.ASKS += [(3000, None), (7000, ${ask("/json")})]`,
    );
    expect(r.lines.filter((l) => l.startsWith("page http")).length).toBeGreaterThanOrEqual(2);
    expect(answers.at(-1)).toMatch(/^HTTP\/1\.0 200 OK/);
    expect(r.lines.filter((l) => /running 7 s$/.test(l))).toHaveLength(1);
  });
  it("without the person's own file it says what to do, and runs", async () => {
    const { r } = await run("", []);
    expect(r.lines).toContain("no local network: copy wlan.example.py to wlan.py and fill it in");
    expect(r.lines.some((l) => /running 6 s$/.test(l))).toBe(true);
  });
  it("only where it is wanted, and where the radio is for that", () => {
    for (const [board, radio, there] of [
      ["board/esp32-thirtyeight", "false", false],
      ["board/nrf52840-compact", "true", false],
      ["board/esp8266-mini", "true", true],
    ] as const) {
      const files = micropython.files(planned(board, radio));
      if (!files.length) continue;
      expect(
        files.some((f) => f.path === "lib/page.py"),
        board,
      ).toBe(there);
    }
  });
});

describe("readings on the local network, by a sketch", () => {
  const parts = (board: string, radio = "true") =>
    circuitOf(
      assign(
        make([
          { ref: "B1", part: board, options: { radio } },
          USB,
          { ref: "M1", part: "module/aht20", label: 'Air <b>&"x"??/' },
          { ref: "SW1", part: "discrete/button", label: "Go" },
          { ref: "RV1", part: "discrete/potentiometer", label: "Knob" },
        ] as never),
        catalogue,
      ).project,
      catalogue,
    );
  const OWN = { path: "starter/wlan.h", text: '#define WLAN_NAME "Home"\n#define WLAN_PASSWORD "secret"\n' };
  function run(board: string, network: string, own = [OWN]) {
    const c = parts(board);
    const { family } = c.netlist.instance("B1")!.part.board!;
    const files = sketch.files(c);
    expect(files.map((f) => f.path)).not.toContain("starter/wlan.h");
    process.env.NETWORK = network;
    try {
      const lines = runOnHost([...files, ...own], "starter", 3000, "", [], family);
      return { lines, answers: lines.filter((l) => l.startsWith("ANSWER ")).map((l) => l.slice(7)) };
    } finally {
      delete process.env.NETWORK;
    }
  }
  it.each(["board/esp32-thirtyeight", "board/esp8266-mini"])(
    "%s: a page and its JSON, with labels as words",
    (board) => {
      const { lines, answers } = run(board, "500:4000000000;1500:/;2500:/json;3500:/pins?x=1;4500:;6500:/json");
      expect(lines).toContain("CONNECT Home secret");
      expect(lines).toContain("page http://192.0.2.7/");
      const [page, json, other, last] = answers as [string, string, string, string];
      expect(answers).toHaveLength(4);
      expect(page).toMatch(/^HTTP\/1\.0 200 OK\|Content-Type: text\/html/);
      expect(page).toContain("Air &lt;b&gt;&amp;");
      expect(page).not.toContain("<b>");
      expect(page).toMatch(/<\/html>$/);
      const body = JSON.parse(json.split("||")[1]!) as Record<string, string | null>;
      // Nothing answers on this bus: no reading, not a wrong one.
      expect(Object.entries(body).find(([k]) => /^Air/.test(k))![1]).toBeNull();
      expect(Object.entries(body).find(([k]) => /^Go/.test(k))![1]).toBe("0");
      expect(Number(Object.entries(body).find(([k]) => /^Knob/.test(k))![1])).toBeGreaterThan(0);
      expect(other).toMatch(/^HTTP\/1\.0 404/);
      // Somebody who says nothing is let go, and the next one is answered.
      expect(last).toMatch(/^HTTP\/1\.0 200 OK/);
      expect(lines.filter((l) => /running \d+ s/.test(l)).length).toBeGreaterThan(5);
    },
  );
  it("two parts of one name are two readings, in both languages", () => {
    const make2 = (board: string) =>
      circuitOf(
        assign(
          make([
            { ref: "B1", part: board, options: { radio: "true" } },
            USB,
            { ref: "RV1", part: "discrete/potentiometer", label: "Knob" },
            { ref: "RV2", part: "discrete/potentiometer", label: "Knob" },
          ] as never),
          catalogue,
        ).project,
        catalogue,
      );
    const c = make2("board/esp32-thirtyeight");
    for (const t of [sketch, micropython]) {
      const text = t.files(c).find((f) => /starter\.ino|main\.py/.test(f.path))!.text;
      expect(text, t.id).toMatch(/Knob [^"\\(]*\(RV2\)/);
    }
  });
  it("a network that goes and is not there any more; without the own file it says what to do", () => {
    const gone = run("board/esp32-thirtyeight", "0:1500;1000:/;2500:/");
    expect(gone.answers).toHaveLength(1);
    const none = run("board/esp32-thirtyeight", "0:4000000000;1500:/", []);
    expect(none.lines).toContain("no local network: copy wlan.example.h to wlan.h and fill it in");
    expect(none.lines.some((l) => l.startsWith("CONNECT"))).toBe(false);
  });
  it("only where it is wanted, and where the radio is for that", () => {
    for (const [board, radio, there] of [
      ["board/esp32-thirtyeight", "false", false],
      ["board/nrf52840-compact", "true", false],
      ["board/esp32-c3-mini", "true", true],
    ] as const) {
      const text = sketch.files(parts(board, radio)).find((f) => /starter\.ino$/.test(f.path))!.text;
      expect(text.includes("WiFiServer"), board).toBe(there);
    }
  });
});
