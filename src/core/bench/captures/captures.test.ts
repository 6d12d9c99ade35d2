import { describe, expect, it } from "vitest";
import { circuitOf, type Circuit } from "../../circuit";
import { i2cBuses, spiBuses, uartLinks } from "../../circuit/buses";
import { BENCHES } from "../reason/cases";
import { BOARD3, catalogue, planned, USB } from "../../testing";
import type { Change } from "../laid/change";
import { reasonOf } from "../reason";
import { simulatedBench } from "../simulated/bench";
import { busWaves, compareCapture, matchChannels, readerFor, writeVcd, type Capture, type Message } from ".";

/** A line drawn by hand: levels at times, written as a dump or as a table by the test itself. */
class Line {
  now: 0 | 1;
  moves: [number, 0 | 1][] = [];
  constructor(
    readonly name: string,
    readonly first: 0 | 1,
  ) {
    this.now = first;
  }
  put(t: number, v: 0 | 1) {
    if (v !== this.now) this.moves.push([t, (this.now = v)]);
  }
}
const all = (lines: Line[]) =>
  lines.flatMap((l, i) => l.moves.map(([t, v]) => ({ t, v, i }))).sort((a, b) => a.t - b.t || a.i - b.i);
const vcd = (lines: Line[]) =>
  [
    "$date today $end $timescale 10 ns $end",
    "$scope module top $end",
    ...lines.map((l, i) => `$var wire 1 ${String.fromCharCode(34 + i)} ${l.name} $end`),
    "$var wire 8 z many [7:0] $end",
    "$upscope $end $enddefinitions $end",
    "#0 $dumpvars",
    ...lines.map((l, i) => `${l.first}${String.fromCharCode(34 + i)}`),
    "b00001111 z",
    "$end",
    ...all(lines).map((m) => `#${Math.round(m.t * 1e8)} ${m.v}${String.fromCharCode(34 + m.i)}`),
  ].join("\n");
const csv = (lines: Line[], by = ",", unit = "s", scale = 1) => {
  const level = lines.map((l) => l.first as number);
  const row = (t: number) => [(t * scale).toPrecision(12), ...level].join(by);
  const rows = [row(0), ...all(lines).map((m) => ((level[m.i] = m.v), row(m.t)))];
  return [[`Time [${unit}]`, ...lines.map((l) => l.name)].join(by), ...rows].join("\r\n");
};
function read(text: string, piece = 17): Capture {
  const r = readerFor(text);
  for (let i = 0; i < text.length; i += piece) {
    const why = r.push(text.slice(i, i + piece));
    if (why) throw new Error(why);
  }
  const end = r.end();
  if (!end.ok) throw new Error(end.why);
  return end.capture;
}

/** One message on a bus, drawn bit by bit (UM10204, figure 4); `takes`: who answers. */
function talk(sda: Line, scl: Line, t0: number, Hz: number, address: number, bytes: number[], takes: boolean) {
  const h = 1 / Hz / 4;
  let t = t0;
  const at = (l: Line, v: 0 | 1) => l.put((t += h), v);
  at(sda, 0);
  at(scl, 0);
  for (const value of [address << 1, ...(takes ? bytes : [])]) {
    for (let b = 7; b >= 0; b--) {
      at(sda, ((value >> b) & 1) as 0 | 1);
      at(scl, 1);
      t += h;
      at(scl, 0);
    }
    at(sda, takes ? 0 : 1);
    at(scl, 1);
    t += h;
    at(scl, 0);
  }
  at(sda, 0);
  at(scl, 1);
  at(sda, 1);
  return t + 10 * h;
}

const moss = circuitOf(BENCHES["moss terrarium"]!(), catalogue);
const bus = i2cBuses(moss)[0]!;
const held = (c: Circuit, text: string, map?: [string, string][]) =>
  compareCapture(c, matchChannels(c, read(text), new Map(map)));
const bad = (list: ReturnType<typeof held>) => list.filter((x) => x.ok === false).map((x) => x.says);

function busCapture(
  o: { Hz?: number; addresses?: [number, boolean][]; swap?: boolean; names?: [string, string] } = {},
) {
  const [a, b] = o.names ?? ["SDA", "SCL"];
  const [sda, scl] = [new Line(o.swap ? b : a, 1), new Line(o.swap ? a : b, 1)];
  let t = 1e-3;
  for (const [address, takes] of o.addresses ?? [
    [0x3c, true],
    [0x76, true],
  ])
    t = talk(sda, scl, t, o.Hz ?? bus.clock_Hz, address, [0xd0, 0x55, 0xaa], takes);
  return o.swap ? [scl, sda] : [sda, scl];
}

describe("an I2C capture held against the plan", () => {
  it.each([
    ["a dump", (l: Line[]) => vcd(l)],
    ["a table", (l: Line[]) => csv(l)],
    ["a table with semicolons in microseconds", (l: Line[]) => csv(l, ";", "us", 1e6)],
  ])("%s of a sound bus is as planned", (_, write) => {
    const list = held(moss, write(busCapture()));
    expect(bad(list)).toEqual([]);
    expect(list.filter((x) => x.ok).map((x) => x.says)).toEqual(
      expect.arrayContaining([
        expect.stringContaining("Display answers at 0x3c"),
        expect.stringContaining("Air sensor answers at 0x76"),
      ]),
    );
  });
  it("a part that does not answer, another strap, another clock, each is named", () => {
    expect(
      bad(
        held(
          moss,
          vcd(
            busCapture({
              addresses: [
                [0x3c, true],
                [0x76, false],
              ],
            }),
          ),
        ),
      ),
    ).toEqual(["Air sensor is asked at 0x76 and does not answer."]);
    expect(
      bad(
        held(
          moss,
          vcd(
            busCapture({
              addresses: [
                [0x3c, true],
                [0x76, false],
                [0x77, true],
              ],
            }),
          ),
        ),
      ).join(),
    ).toContain("0x77");
    expect(bad(held(moss, vcd(busCapture({ Hz: bus.clock_Hz * 4 })))).join()).toMatch(/its clock runs at .*planned/);
  });
  it("swapped lines and a missing pull-up are named", () => {
    expect(bad(held(moss, vcd(busCapture({ swap: true }))))).toEqual([
      expect.stringContaining("data and clock are swapped"),
    ]);
    const low = [new Line("SDA", 1), new Line("SCL", 0)];
    low[0]!.put(1e-3, 0);
    low[0]!.put(2e-3, 1);
    expect(bad(held(moss, vcd(low))).join()).toContain("SCL rests low");
  });
  it("channels are known by pins too, or by what somebody says; nothing is guessed", () => {
    expect(bad(held(moss, vcd(busCapture({ names: ["B1_GP4", "M1.SCL"] }))))).toEqual([]);
    const d = vcd(busCapture({ names: ["D0", "D1"] }));
    expect(matchChannels(moss, read(d)).unmatched).toEqual(["D0", "D1"]);
    expect(
      held(moss, d, [
        ["D0", "M1.SDA"],
        ["D1", "GP5"],
      ]).some((x) => x.ok),
    ).toBe(true);
    expect(
      matchChannels(
        moss,
        read(d),
        new Map([
          ["D9", "M1.SDA"],
          ["D0", "M9.X"],
        ]),
      ).problems,
    ).toHaveLength(2);
  });
});

describe("an SPI capture", () => {
  const c = circuitOf(planned([BOARD3, USB, { ref: "M1", part: "module/rc522", label: "Reader" }]), catalogue);
  const spi = spiBuses(c)[0]!;
  const m = spi.members[0]!;
  /** Bytes on a clock of a mode, drawn by what the modes mean. */
  function draw(mode: number, Hz: number) {
    const [idle, late] = [(mode >> 1) as 0 | 1, mode & 1];
    const [sck, mosi, cs] = [new Line("SCK", idle), new Line("MOSI", 0), new Line("CS", 1)];
    const h = 0.5 / Hz;
    let t = 1e-3;
    for (const value of [0x9f, 0x25, 0xc3]) {
      cs.put((t += 4 * h), 0);
      t += 2 * h;
      for (let b = 7; b >= 0; b--) {
        const bit = ((value >> b) & 1) as 0 | 1;
        if (!late) mosi.put(t, bit);
        t += h;
        sck.put(t, (1 - idle) as 0 | 1);
        if (late) mosi.put(t + h / 10, bit);
        t += h;
        sck.put(t, idle);
      }
      cs.put((t += 2 * h), 1);
    }
    return vcd([sck, mosi, cs]);
  }
  const map: [string, string][] = [
    ["SCK", `M1.${spi.sck.ends.find((e) => e.ref === "M1")!.pin}`],
    ["MOSI", `M1.${m.mosi}`],
    ["CS", `M1.${m.cs}`],
  ];
  it.each([0, 1, 2, 3])("mode %i is told from the others", (mode) => {
    const list = held(c, draw(mode, m.max_Hz / 4), map);
    if (mode === m.mode) expect(bad(list)).toEqual([]);
    else
      expect(bad(list)).toEqual([
        `the clock is that of mode ${mode}, the part wants mode ${m.mode}: set mode ${m.mode} for it.`,
      ]);
  });
  it("a clock that is too fast is named", () => {
    expect(bad(held(c, draw(m.mode, m.max_Hz * 2), map)).join()).toContain("more than");
  });
});

describe("lines by themselves", () => {
  const c = circuitOf(
    planned([
      BOARD3,
      USB,
      { ref: "M1", part: "module/gps-neo6m", label: "Where" },
      { ref: "M2", part: "module/servo-small", label: "Flag" },
      { ref: "M3", part: "module/ws2812b-strip", label: "Strip", options: { pixels: 4 } },
    ]),
    catalogue,
  );
  const link = uartLinks(c)[0]!;
  const tx = `M1.${link.lines.find((l) => l.role === "rx")!.pin}`;
  function serial(baud: number, idle: 0 | 1 = 1) {
    const l = new Line("D0", idle);
    let t = 1e-3;
    for (const ch of "$GPGGA,1234*5A\r\n") {
      l.put(t, 0);
      for (let b = 0; b < 8; b++) l.put((t += 1 / baud), ((ch.charCodeAt(0) >> b) & 1) as 0 | 1);
      l.put((t += 1 / baud), 1);
      t += 1.5 / baud;
    }
    return vcd([l]);
  }
  it.each([4800, 9600, 38_400, 115_200])("%i baud are heard, and held against the plan's", (baud) => {
    const list = held(c, serial(baud), [["D0", tx]]);
    if (baud === link.baud) expect(bad(list)).toEqual([]);
    else
      expect(bad(list)).toEqual([
        `sends at ${baud} baud, the program listens at ${link.baud}: set one of them to the other.`,
      ]);
  });
  it("a one-wire line: who answers, checksums, 85 degrees, a line that rests low", () => {
    const one = circuitOf(planned([BOARD3, USB, { ref: "M1", part: "module/ds18b20", label: "Brood" }]), catalogue);
    const host = one.netlist.bindings.find((b) => b.ref === "M1")!.hostPin;
    /** Resets and slots as the data sheet draws them, in microseconds. */
    const drawn = (talks: { bytes: number[] }[], o: { present?: boolean; rests?: 0 | 1; reset?: number } = {}) => {
      const l = new Line("D0", 1);
      let t = 1e-3;
      const low = (us: number, then: number) => {
        l.put(t, 0);
        l.put((t += us * 1e-6), 1);
        t += then * 1e-6;
      };
      for (const { bytes } of talks) {
        low(o.reset ?? 500, 30);
        if (o.present !== false) low(120, 300);
        else t += 400e-6;
        for (const b of bytes)
          for (let k = 0; k < 8; k++) {
            if ((b >> k) & 1) low(6, 64);
            else low(60, 10);
          }
        t += 1e-3;
      }
      if (o.rests === 0) l.put(t + 1e-3, 0);
      return vcd([l]);
    };
    const convert = { bytes: [0xcc, 0x44] };
    // 25.0625 degrees, and what it holds before: both with the checksums of the data sheet's polynomial, worked out by hand here.
    const crc = (list: number[]) =>
      list.reduce((c, v) => {
        for (let k = 0; k < 8; k++, v >>= 1) c = ((c ^ v) & 1) === 1 ? (c >> 1) ^ 0x8c : c >> 1;
        return c;
      }, 0);
    const holds = (lo: number, hi: number) => {
      const eight = [lo, hi, 0x4b, 0x46, 0x7f, 0xff, 0x0f, 0x10];
      return { bytes: [0xcc, 0xbe, ...eight, crc(eight)] };
    };
    const says = (text: string) => held(one, text, [["D0", `B1.${host}`]]);
    const warm = holds(0x91, 0x01);
    expect(says(drawn([convert, warm, convert, warm])).map((x) => [x.ok, x.says])).toEqual([
      [true, "answers all of 4 resets."],
      [true, "2 readings, all with the right checksum."],
    ]);
    expect(bad(says(drawn([convert, convert], { present: false }))).join()).toContain(
      "asked 2 times, and nothing answers",
    );
    expect(bad(says(drawn([convert, holds(0x50, 0x05)]))).join()).toContain("only 85.0 °C");
    const wrong = { bytes: warm.bytes.map((v, i) => (i === 3 ? v ^ 0x10 : v)) };
    expect(bad(says(drawn([wrong, wrong, warm]))).join()).toContain("2 of 3 readings with a wrong checksum");
    expect(bad(says(drawn([convert, warm], { rests: 0 }))).join()).toContain("rests low");
    expect(bad(says(drawn([convert, warm], { reset: 300 }))).join()).toContain("shorter than 480 µs");
  });
  it("a servo's pulses and a strip's bits are measured", () => {
    const pulses = (high: number, Hz: number) => {
      const l = new Line("D0", 0);
      for (let k = 1; k < 20; k++) {
        l.put(k / Hz, 1);
        l.put(k / Hz + high, 0);
      }
      return vcd([l]);
    };
    expect(bad(held(c, pulses(1.5e-3, 50), [["D0", "M2.SIG"]]))).toEqual([]);
    expect(bad(held(c, pulses(0.2e-3, 400), [["D0", "M2.SIG"]])).join()).toContain("a servo wants");
    const strip = (bytes: number, bit: number) => {
      const l = new Line("D0", 0);
      let t = 1e-3;
      for (let i = 0; i < bytes * 8; i++) {
        l.put(t, 1);
        l.put(t + (i % 3 ? 0.3e-6 : 0.7e-6), 0);
        t += bit;
      }
      l.put(t + 1e-3, 1);
      l.put(t + 1e-3 + 0.4e-6, 0);
      return vcd([l]);
    };
    expect(bad(held(c, strip(12, 1.25e-6), [["D0", "M3.DIN"]]))).toEqual([]);
    expect(bad(held(c, strip(9, 1.25e-6), [["D0", "M3.DIN"]])).join()).toContain("4 lights want 12");
    expect(bad(held(c, strip(12, 2.5e-6), [["D0", "M3.DIN"]])).join()).toContain("1.25 µs");
  });
});

describe("files that are none, and large ones", () => {
  it.each([
    ["", /no rows|Time/],
    ["a,b\n1,2", /names no column Time/],
    ["Time [weeks],D0\n0,1", /unit "weeks"/],
    ["$date x $end", /declarations never end/],
    ["$timescale 3 ns $end", /timescale/],
    ["$enddefinitions $end", /no line of one bit/],
    ["$enddefinitions $end hello", /nothing that such a file has|no line/],
    [`$${"x".repeat(10_000)}`, /never ends/],
  ])("file %#", (text, why) => {
    expect(() => read(text, 4096)).toThrow(why);
  });
  it("a million changes are read in pieces", () => {
    const r = readerFor("$timescale 1 us $end");
    r.push("$timescale 1 us $end $var wire 1 ! SDA $end $enddefinitions $end\n0!\n");
    for (let k = 0; k < 1000; k++)
      r.push(Array.from({ length: 1000 }, (_, i) => `#${k * 1000 + i + 1}\n${i % 2 ? 0 : 1}!\n`).join(""));
    const end = r.end();
    expect(end.ok && end.capture.channels[0]!.at.length).toBe(1_000_000);
  });
  it("what the simulated bench writes is read back as it was", () => {
    const text = writeVcd(
      "a $end title",
      [
        { at: 1, ref: "LED1", pin: "A", hostPin: "B1.GP4", level: 1 },
        { at: 2.5, ref: "LED1", pin: "A", hostPin: "B1.GP4", level: 0 },
        { at: 2.5, ref: "LED2", pin: "A", hostPin: "B1.GP5", level: 1 },
      ],
      4,
    );
    const back = read(text);
    expect(back.channels.map((x) => x.name)).toEqual(["B1_GP4", "B1_GP5"]);
    expect([...back.channels[0]!.to]).toEqual([0]);
    expect(back.channels[0]!.first).toBe(1);
    expect(back.channels[0]!.at[0]).toBeCloseTo(1.5e-3, 9);
  });
});

describe("captures of the simulated bench", () => {
  const RUN_MS = 3500;
  const probes = (c: Circuit, change: Change = {}) => {
    const bench = simulatedBench(c, change);
    bench.run(RUN_MS);
    const text = writeVcd(c.project.title, bench.driven, RUN_MS, busWaves(c, bench.messages));
    return compareCapture(c, matchChannels(c, read(text, 65_536)));
  };
  it("hold what goes over its buses: who answers, at which clock, as planned", () => {
    const c = circuitOf(BENCHES["moss terrarium"]!(), catalogue);
    const found = probes(c);
    expect(found.filter((f) => f.ok === false)).toEqual([]);
    const says = found.map((f) => f.says).join(" ");
    for (const b of i2cBuses(c).filter((x) => x.host === "B1"))
      for (const m of b.members) expect(says).toContain(`answers at ${m.address}`);
    expect(says).toContain("its clock runs at 100 kHz");
  });
  it("and show who does not answer when a wire is open", () => {
    const c = circuitOf(BENCHES["moss terrarium"]!(), catalogue);
    const open = reasonOf(c).singles.find((h) => h.faults[0]?.id.startsWith("open-wire M1.SDA"))!.faults[0]!;
    const wrong = probes(c, open.change).filter((f) => f.ok === false);
    expect(wrong.map((f) => f.says).join(" ")).toMatch(/asked at 0x\w+ and does not answer/);
  });
  const onBoard = (parts: object[]) => circuitOf(planned([BOARD3, USB, ...(parts as never[])]), catalogue);
  it.each([1, 2, 3])("hold a wire of %i probes: resets, codes where there are several, and sound sums", (n) => {
    const c = onBoard(Array.from({ length: n }, (_, i) => ({ ref: `M${i + 1}`, part: "module/ds18b20" })));
    const found = probes(c);
    expect(found.filter((f) => f.ok !== true)).toEqual([]);
    const says = found.map((f) => f.says).join(" ");
    expect(says).toMatch(/answers all of \d+ resets/);
    expect(says).toMatch(/\d+ readings, all with the right checksum/);
    const open = reasonOf(c).singles.find((h) => h.faults[0]?.id.startsWith("open-wire M1.DQ"))!.faults[0]!;
    // Nobody is guessed while one of several is missing: none is asked.
    const wrong = probes(c, open.change).map((f) => f.says);
    expect(wrong.join(" ")).toMatch(/nothing answers/);
  });
  it.each(["module/gps-neo6m", "module/pms5003", "module/mhz19b", "module/mp3-player"])(
    "hold what %s and its board say over their serial line, at its rate",
    (part) => {
      const c = onBoard([{ ref: "M1", part }]);
      const found = probes(c);
      expect(found.filter((f) => f.ok === false)).toEqual([]);
      expect(found.map((f) => f.says).join(" ")).toMatch(/baud, as planned; \d+ bytes, 0 broken/);
    },
  );
  it.each([0, 1, 2, 3])("SPI in mode %i is read back in that mode, both ways", (mode) => {
    const c = circuitOf(planned([BOARD3, USB, { ref: "M1", part: "module/mcp3008" }]), catalogue);
    const part = c.netlist.instance("M1")!.part;
    const shown = { ...part, groups: part.groups.map((g) => ({ ...g, mode: mode as 0 })) };
    const other: Circuit = {
      ...c,
      netlist: {
        ...c.netlist,
        instance: (ref) => (ref === "M1" ? { ...c.netlist.instance(ref)!, part: shown } : c.netlist.instance(ref)),
      },
    };
    const message: Message = { at: 1, ref: "M1", out: [0x1a, 0x55], in: [0xa5, 0x3c], wanted: 2, answered: true };
    const waves = busWaves(other, [message, { ...message, at: 1 }]);
    const pin = (name: string) => `B1.${c.netlist.bindings.find((b) => b.ref === "M1" && b.pin === name)!.hostPin}`;
    // Sampled as that mode samples: at the first edge of the clock or at the second, by how it rests.
    const edge = (mode === 0 || mode === 3 ? 1 : 0) as 0 | 1;
    const level = new Map<string, number>();
    const [out, back]: [number[], number[]] = [[], []];
    for (const e of waves) {
      if (
        e.hostPin === pin("CLK") &&
        level.get(e.hostPin) !== undefined &&
        e.level === edge &&
        level.get(pin("CS")) === 0
      ) {
        out.push(level.get(pin("DIN"))!);
        back.push(level.get(pin("DOUT"))!);
      }
      level.set(e.hostPin, e.level);
    }
    const bytes = (bits: number[]) =>
      Array.from({ length: bits.length / 8 }, (_, k) => bits.slice(8 * k, 8 * k + 8).reduce((v, b) => v * 2 + b, 0));
    expect(bytes(out)).toEqual([0x1a, 0x55, 0, 0, 0x1a, 0x55, 0, 0]);
    expect(bytes(back)).toEqual([0, 0, 0xa5, 0x3c, 0, 0, 0xa5, 0x3c]);
    // The second message of the same moment waits for the first.
    expect(waves.filter((e) => e.hostPin === pin("CS")).map((e) => e.level)).toEqual([0, 1, 0, 1]);
  });
});
