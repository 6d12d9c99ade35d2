import { describe, expect, it } from "vitest";
import { assign } from "../src/core/plan/assign";
import { findPin, type Part } from "../src/core/parts/catalogue";
import { circuitOf, type Circuit } from "../src/core/circuit";
import { targetById } from "../src/core/firmware";
import { catalogue, make } from "../src/core/testing";
import { checkSketch } from "./avr/toolchain";
import { checkOnHost } from "./host/compile";
import { runProgram } from "./micropython/run";

/** Every part that a board talks to, put on a board in batches as large as fit, and its programs really built and run. */
const wantsCan = (p: Part) => p.pins.some((x) => x.need?.kind === "can");
const all = catalogue.parts.filter((p) => !p.board && p.bringup && p.pins.some((x) => x.need));
/** Without those that need a controller which neither of the two boards has. */
const talking = all.filter((p) => !wantsCan(p));

interface Batch {
  parts: Part[];
  circuit: Circuit;
}

/** What an AVR board has pins for: none of them has a port for sound. */
const onAvr = talking.filter((p) => !p.pins.some((x) => x.need?.kind === "i2s"));

function batches(board: string, most: number, list: readonly Part[] = talking): Batch[] {
  const out: Batch[] = [];
  let now: Part[] = [];
  const plan = (parts: Part[]) => {
    const a = assign(
      make([
        { ref: "B1", part: board },
        { ref: "S1", part: "supply/usb-port" },
        ...parts.map((p, i) => ({ ref: `M${i + 1}`, part: p.id, label: p.id.split("/")[1] })),
      ]),
      catalogue,
    );
    return a.status === "optimal" ? circuitOf(a.project, catalogue) : null;
  };
  let circuit: Circuit | null = null;
  const close = () => circuit && now.length && out.push({ parts: now, circuit });
  for (const p of list) {
    const next = now.length < most ? plan([...now, p]) : null;
    if (next) {
      now.push(p);
      circuit = next;
      continue;
    }
    close();
    now = [p];
    circuit = plan(now);
    if (!circuit) throw new Error(`${p.id} does not fit ${board} even alone`);
  }
  close();
  return out;
}

const named = (b: Batch, i: number): [string, Batch, number] => [
  b.parts.map((p) => p.id.split("/")[1]).join(" "),
  b,
  i,
];

describe("sketches for every part compile without a warning", () => {
  const list = batches("board/atmega2560-long", 9, onAvr);
  it("covers every part that a board talks to", () => {
    expect(list.flatMap((b) => b.parts.map((p) => p.id))).toEqual(onAvr.map((p) => p.id));
    expect(onAvr.length).toBeGreaterThan(110);
  });
  it.each(list.map(named))("%s", (_n, b, i) => {
    const files = targetById("sketch")!.files(b.circuit);
    for (const folder of ["bringup", "starter"]) checkSketch(`catalogue-${i}`, files, folder, "atmega2560");
    const text = files.find((f) => f.path === "bringup/bringup.ino")!.text;
    for (const [k, p] of b.parts.entries())
      if (p.groups.some((g) => g.address)) expect(text, p.id).toMatch(new RegExp(`YL1 (i2c|display) M${k + 1} `));
  });
});

describe("sketches compile for every AVR board", () => {
  const boards = catalogue.parts.flatMap((p) => {
    const t = p.board?.targets.sketch;
    return p.board?.family === "avr" && t?.mcu ? [[p.id, t.mcu] as const] : [];
  });
  it("knows seven of them", () => expect(boards.map(([id]) => id)).toHaveLength(7));
  it.each(boards)("%s", (id, mcu) => {
    const p = assign(
      make([
        { ref: "B1", part: id },
        { ref: "S1", part: "supply/usb-port" },
        { ref: "M1", part: "module/sht31" },
        { ref: "M2", part: "module/hc-sr04" },
        { ref: "SW1", part: "discrete/button" },
        { ref: "D1", part: "discrete/led-red" },
        { ref: "R1", part: "discrete/potentiometer" },
      ]),
      catalogue,
    ).project;
    const files = targetById("sketch")!.files(circuitOf(p, catalogue));
    for (const folder of ["bringup", "starter"]) checkSketch(id.replace("/", "-"), files, folder, mcu);
  });
});

describe("sketches for the boards of other families, against the API's documented signatures", () => {
  const boards = catalogue.parts.flatMap((p) =>
    p.board?.targets.sketch && p.board.family !== "avr" ? [[p.id, p.board.family] as const] : [],
  );
  it("are there for all of them but the Linux board", () => expect(boards.length).toBeGreaterThanOrEqual(14));
  it.each(boards)("%s", (id, family) => {
    const p = assign(
      make([
        { ref: "B1", part: id },
        { ref: "S1", part: "supply/usb-port" },
        { ref: "M1", part: "module/sht31" },
        { ref: "M2", part: "module/bme280" },
        { ref: "M3", part: "module/ssd1306-i2c" },
        { ref: "M4", part: "module/ultrasonic-3v3" },
        { ref: "M5", part: "module/ws2812b-ring-16" },
        { ref: "SW1", part: "discrete/button" },
        { ref: "D1", part: "discrete/led-red" },
        { ref: "R1", part: "discrete/potentiometer" },
      ]),
      catalogue,
    );
    // A small board has not pins for all of it: what is planned gets a program.
    const files = targetById("sketch")!.files(circuitOf(p.project, catalogue));
    for (const folder of ["bringup", "starter"]) checkOnHost(id.replace("/", "-"), files, folder, family);
  });
});

describe("parts for a CAN controller, on a board that has one", () => {
  it.each(all.filter(wantsCan).map((p) => p.id))("%s", async (id) => {
    const p = assign(
      make([
        { ref: "B1", part: "board/esp32-thirtyeight" },
        { ref: "S1", part: "supply/usb-port" },
        { ref: "M1", part: id },
      ]),
      catalogue,
    );
    const files = targetById("micropython")!.files(circuitOf(p.project, catalogue));
    expect((await runProgram(files, "bringup.py", "clock.END[0] = 60000")).lines.join("\n")).toMatch(/^YL1 done/m);
    expect(files.find((f) => f.path === "pins.py")!.text).toMatch(/PIN_M1_CTX = \d+/);
  });
});

describe("MicroPython programs for every part run under the port", () => {
  const list = batches("board/rp2040-forty", 7);
  const gpio = (c: Circuit, pin: string) => findPin(c.netlist.instance("B1")!.part, pin)!.gpio!;
  it.each(list.map(named))("%s", async (_n, b) => {
    const { circuit: c } = b;
    const files = targetById("micropython")!.files(c);
    // A world in which every part answers, and says who it is.
    const world = b.parts
      .flatMap((p) => p.groups.flatMap((g) => (g.address ? [[p, g.address] as const] : [])))
      .map(([p, a]) => {
        const id = p.bringup?.identity;
        const byte =
          id && parseInt(id.want, 16) <= 0xff ? `${parseInt(id.register, 16)}: ${parseInt(id.want, 16)}` : "";
        return `machine.I2C_DEVICES[${a}] = {${byte}}`;
      })
      .join("\n");
    const r = await runProgram(files, "bringup.py", `${world}\nclock.END[0] = 60000`);
    expect(r.lines.join("\n")).toMatch(/^YL1 done/m);
    const verdicts = r.lines.filter((l) => /^YL1 (i2c|scan) /.test(l));
    for (const l of verdicts) expect(l).toMatch(/ (ok|info)$/);
    // Nothing but planned pins is opened, and every plain input, output and analogue pin is.
    const OWN_LIGHT = 25;
    const plan = new Set([...c.netlist.bindings.map((x) => gpio(c, x.hostPin)), OWN_LIGHT]);
    const opened = new Set(
      r.log.flatMap((e) =>
        e[0] === "pin" || e[0] === "adc"
          ? [e[1]]
          : e[0] === "i2c"
            ? [e[2], e[3]]
            : e[0] === "i2s"
              ? [e[2], e[3], e[4]]
              : [],
      ),
    );
    for (const g of opened) expect(plan, `GP${g}`).toContain(g);
    for (const x of c.netlist.bindings)
      if (!["spi", "uart"].includes(x.need.kind) && x.direct)
        expect(opened, `${x.ref}.${x.pin}`).toContain(gpio(c, x.hostPin));
    const main = await runProgram(files, "main.py", world);
    expect(main.lines).toContain("CLOCK RAN OUT");
  });
});
