import { describe, expect, it } from "vitest";
import { planAll } from ".";
import { isPlanned } from "../assign";
import type { Project } from "../../project";
import { BOARD3, BOARD5, CABLE, catalogue, check, make, USB } from "../../testing";

const HARM =
  /^(level|net|contact|led|current|load|part)\.|^pin\.(?!isp)|^power\.(short|range|ground-joined|two-sources)|^adc\./;
const key = (f: { rule: string; at: string[] }) => `${f.rule} ${f.at.join(" ")}`;
const grave = (p: Project) =>
  check(p).filter((f) => (f.severity === "stop" || f.severity === "fault") && HARM.test(f.rule));
const wires = (p: Project) => p.links.map((l) => [l.from, l.to].sort().join(" – "));

let seed = 1;
const roll = (n: number) => {
  seed = (Math.imul(seed, 1103515245) + 12345) >>> 0;
  return Math.floor((seed / 4294967296) * n);
};
const pick = <T>(list: readonly T[]): T => list[roll(list.length)]!;

const BOARDS = [
  "board/atmega328p-long",
  "board/rp2040-forty",
  "board/esp32-thirtyeight",
  "board/atmega2560-long",
  "board/esp8266-mini",
];
const KINDS = catalogue.ids.filter((id) => /^(module|discrete)\//.test(id));
const SUPPLIES = [
  "supply/usb-port",
  "supply/usb-charger",
  "supply/battery-9v",
  "supply/aa-3",
  "supply/adapter-12v-2a",
  "supply/adapter-5v-2a",
];

/** A random list with random wires made by hand, some of them nonsense, some locked. */
function scrawl(n: number): Project {
  seed = n * 2654435761;
  const parts = [
    { ref: "B1", part: pick(BOARDS) },
    { ref: "S1", part: pick(SUPPLIES) },
    ...(roll(3) === 0 ? [{ ref: "S2", part: pick(SUPPLIES) }] : []),
    ...Array.from({ length: 1 + roll(5) }, (_, i) => ({ ref: `M${i + 1}`, part: pick(KINDS) })),
  ];
  const ends = parts.flatMap((p) =>
    catalogue
      .get(p.part)!
      .pins.filter((x) => x.role !== "cable" && x.role !== "nc")
      .map((x) => `${p.ref}.${x.label}`),
  );
  const links = new Map<string, { from: string; to: string; locked?: boolean }>();
  for (let k = roll(6); k > 0; k--) {
    const [from, to] = [pick(ends), pick(ends)];
    if (from.split(".")[0] !== to.split(".")[0])
      links.set([from, to].sort().join(), { from, to, ...(roll(2) && { locked: true }) });
  }
  return make(parts, [], { links: [...links.values()] });
}

describe("a plan never makes things worse", () => {
  it.each(Array.from({ length: 120 }, (_, i) => i + 1))(
    "scrawl %i: no new stop or fault of its own, no wire of the person's moved",
    (n) => {
      const p = scrawl(n);
      const a = planAll(p, catalogue);
      if (!isPlanned(a)) {
        expect(a.clash).toBeTruthy();
        expect(a.project).toBe(p);
        return;
      }
      const had = new Set(grave(p).map(key));
      expect(
        grave(a.project)
          .filter((f) => !had.has(key(f)))
          .map((f) => `${f.severity} ${f.rule}: ${f.message}`),
      ).toEqual([]);
      const after = new Set(wires(a.project));
      for (const l of p.links.filter((x) => x.locked)) expect(after).toContain([l.from, l.to].sort().join(" – "));
      for (const x of a.leftOut) expect(x.why.length).toBeGreaterThan(20);
    },
  );
});

describe("what people wire first and plan later", () => {
  const TOGGLE = { ref: "SW1", part: "discrete/toggle" };
  const plan = (parts: object[], links: [string, string][], rest: object = {}) =>
    planAll(make(parts, links, rest), catalogue);
  const added = (p: Project, a: { project: Project }) => wires(a.project).filter((w) => !wires(p).includes(w));

  it.each(["1", "2"])(
    "a battery through the switch's leg %s goes on to the board's inlet, never to a logic pin",
    (leg) => {
      const p = make([BOARD5, { ref: "S1", part: "supply/battery-9v" }, TOGGLE], [["S1.+", `SW1.${leg}`]]);
      const a = planAll(p, catalogue);
      const other = leg === "1" ? "2" : "1";
      expect(added(p, a)).toContain(`B1.VIN – SW1.${other}`);
      expect(added(p, a).some((w) => /B1\.(A|D)\d/.test(w))).toBe(false);
      // Planned again, nothing changes.
      expect(wires(planAll(a.project, catalogue).project)).toEqual(wires(a.project));
    },
  );

  it("lights in a row take one pin, contacts in a row one, a light behind a transistor none", () => {
    const row = plan(
      [BOARD5, USB, { ref: "D1", part: "discrete/led-red" }, { ref: "D2", part: "discrete/led-red" }],
      [CABLE, ["D1.K", "D2.A"], ["D2.K", "B1.GND"]],
    );
    expect(row.links.map((l) => l.from)).toEqual(["D1.A"]);
    const keys = plan(
      [BOARD3, USB, { ref: "SW1", part: "discrete/button" }, { ref: "SW2", part: "discrete/button" }],
      [CABLE, ["SW1.2", "SW2.1"], ["SW2.2", "B1.GND"]],
    );
    expect(keys.links.map((l) => l.from)).toEqual(["SW1.1"]);
    const behind = plan(
      [
        BOARD5,
        USB,
        { ref: "Q1", part: "discrete/npn-2n2222" },
        { ref: "D1", part: "discrete/led-red", companions: { seriesResistor: { ohm: 220 } } },
      ],
      [CABLE, ["D1.A", "B1.5V"], ["D1.K", "Q1.C"], ["Q1.E", "B1.GND"]],
    );
    expect(behind.links.map((l) => l.from)).toEqual(["Q1.B"]);
  });

  it("grounds that are kept apart stay apart", () => {
    const a = plan(
      [
        BOARD5,
        USB,
        { ref: "S2", part: "supply/adapter-5v-2a" },
        { ref: "M1", part: "module/isolator-2ch" },
        { ref: "M2", part: "module/ws2812b-strip" },
      ],
      [CABLE, ["M2.5V", "S2.5V"], ["M2.DIN", "M1.OUTA"], ["M1.VCC2", "S2.5V"], ["M1.GND2", "S2.GND"]],
      {
        isolated: [
          ["B1", "M1.left"],
          ["M1.right", "M2", "S2"],
        ],
      },
    );
    expect(check(a.project).filter((f) => f.rule === "power.ground-joined")).toEqual([]);
    expect(a.links.map((l) => [l.from, l.to].join())).not.toContain("S2.GND,B1.GND");
  });

  it("a sensor of 5 V on a 3.3 V board comes with its divider, a bus part with its shifter", () => {
    const echo = plan([BOARD3, USB, { ref: "M1", part: "module/hc-sr04" }], []);
    expect(echo.added.join()).toMatch(/Divide M1\.ECHO/);
    expect(grave(echo.project)).toEqual([]);
    const air = plan([BOARD5, USB, { ref: "M1", part: "module/bme280" }], []);
    expect(air.added.join()).toMatch(/two-way level shifter/);
    // Every wire of the plan is told, those of the shifter too.
    const told = air.links.map((l) => [l.from, l.to].sort().join(" – "));
    for (const w of wires(air.project)) expect(told).toContain(w);
    expect(grave(air.project)).toEqual([]);
  });

  it("one pull-up serves a bus: two one-wire sensors get one between them", () => {
    const two = plan([BOARD5, USB, { ref: "M1", part: "module/ds18b20" }, { ref: "M2", part: "module/ds18b20" }], []);
    const pulls = two.project.parts.filter((p) => p.companions?.pullUp);
    expect(pulls.map((p) => p.ref)).toEqual(["M1"]);
    expect(grave(two.project)).toEqual([]);
  });

  it("what nothing mends is left open, whole, with the reason and what would help", () => {
    const a = plan([BOARD3, USB, { ref: "Q1", part: "discrete/nmos-irlz44n" }], []);
    expect(a.leftOut.map((l) => l.from)).toContain("Q1.G");
    expect(a.leftOpen).toMatch(/^Left open: .*4\.00 V at its gate/);
    expect(grave(a.project)).toEqual([]);
  });
});
