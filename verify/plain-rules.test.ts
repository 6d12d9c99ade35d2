import { beforeAll, describe, expect, it } from "vitest";
import { MODELS } from "../src/core/bench/models";
import { findings } from "../src/core/checks";
import { circuitOf, type Circuit } from "../src/core/circuit";
import { DEVICES } from "../src/core/firmware/devices";
import { driverParts } from "../src/core/firmware/pins";
import { rulesView } from "../src/core/firmware/rules/view";
import { avrC } from "../src/core/firmware/targets/avr-c";
import { CHIPS } from "../src/core/firmware/targets/avr-c/chips";
import { findPin } from "../src/core/parts/catalogue";
import { assign } from "../src/core/plan/assign";
import type { Rule } from "../src/core/project";
import { catalogue, make } from "../src/core/testing";
import { benchProgram, compileC, simulateWith } from "./avr/toolchain";
import { linesOf, onTwoWires, wirePart } from "./parts";
import { together } from "./parts/together";

const MEGA328 = { mcu: "atmega328p", clock_Hz: 8_000_000 };
const PARTS = [
  { ref: "SW1", part: "discrete/button", label: "Go" },
  { ref: "LED1", part: "discrete/led-red", label: "Lamp" },
  { ref: "LED2", part: "discrete/led-green", label: "Other lamp" },
  { ref: "M1", part: "module/bh1750", label: "Light" },
  { ref: "M2", part: "module/relay-1", label: "Pump" },
  { ref: "M3", part: "module/max7219-digits", label: "Digits" },
];
const planned = (rules: Rule[], refs: readonly string[], chip = "chip/atmega328p-dip28"): Circuit => {
  const parts = [
    { ref: "B1", part: chip },
    { ref: "S1", part: "supply/usb-port" },
    ...PARTS.filter((p) => refs.includes(p.ref)),
  ];
  const a = assign(make(parts as never), catalogue);
  return circuitOf({ ...a.project, rules }, catalogue);
};
const portOf = (c: Circuit, ref: string, line: string) =>
  findPin(c.netlist.instance("B1")!.part, linesOf(c, ref).get(line)!)!.names!["avr-c"]!;
const pressed = { ref: "SW1", out: "pressed", is: 1 };

describe("sentences in plain C, run in simavr", () => {
  let exe = "";
  beforeAll(() => {
    exe = benchProgram();
  }, 60_000);
  /** Changes of a light; the models at the end. */
  async function run(c: Circuit, seconds: number, presses: readonly (readonly [number, number])[] = []) {
    const { elf } = compileC("plain-rules", avrC.files(c), "main", MEGA328.mcu, MEGA328.clock_Hz);
    const wires = new Map<string, NonNullable<ReturnType<typeof wirePart>>>();
    const models = new Map<string, ReturnType<(typeof MODELS)[number]["make"]>>();
    for (const p of driverParts(c, "B1", "avr-c", (b) => b)) {
      const [kind, m] = [DEVICES.find((d) => d.id === p.inst.part.id), MODELS.find((x) => x.part === p.inst.part.id)];
      if (!kind || !m) continue;
      const part = m.make(m.worlds[0]!, { chain: p.chain, options: p.options });
      models.set(p.inst.ref, part);
      const g = p.inst.part.groups.find((x) => x.kind === "i2c");
      const w = g
        ? onTwoWires(part, parseInt(g.address!, 16), g.pins.sda!, g.pins.scl!)
        : wirePart(c, p.inst.ref, kind.of(p), part, p.chain);
      if (w) wires.set(p.inst.ref, w);
    }
    const at = new Map(
      [...wires.keys()].flatMap((ref) =>
        [...linesOf(c, ref).keys()].map((l) => [`${ref}.${l}`, portOf(c, ref, l)] as const),
      ),
    );
    const go = linesOf(c, "SW1").size ? portOf(c, "SW1", "1") : null;
    const events = go
      ? [`hold:${go}:1`, ...presses.flatMap(([a, b]) => [`later:${go}:${a}:0`, `later:${go}:${b}:1`])]
      : [];
    const lines = wires.size ? { part: together(wires), at } : undefined;
    const r = await simulateWith(exe, elf, seconds, new Map(), undefined, lines, events, MEGA328);
    return { toggles: (ref: string) => r.toggles.get(portOf(c, ref, "A")) ?? 0, models, lines: r.lines };
  }
  it("lamps take turns, and a pump runs while the key is held", async () => {
    const c = planned(
      [
        { when: pressed, do: { ref: "LED1", act: "next", among: ["LED2"] } },
        { when: pressed, do: { ref: "M2", act: "on" } },
      ],
      ["SW1", "LED1", "LED2", "M2"],
    );
    const presses = [1000, 2000, 3000].map((t) => [t, t + 300] as const);
    const r = await run(c, 4, presses);
    // Each pin is first driven at all; then on, off, on, and the other the other way round.
    expect([r.toggles("LED1"), r.toggles("LED2")]).toEqual([4, 3]);
    expect(r.models.get("M2")!.is!(4000).on).toBe(0);
    const held = await run(c, 3.2, [[3000, 3900]]);
    expect(held.models.get("M2")!.is!(3200).on).toBe(1);
  });
  it("for a while, again and again, and one thing after the other", async () => {
    const c = planned(
      [
        { when: pressed, do: { ref: "LED1", act: "for", for_s: 1 } },
        {
          when: { every_s: 1 },
          do: {
            ref: "LED2",
            act: "sequence",
            steps: [
              { value: "on", for_s: 0.2 },
              { value: "off", for_s: 0.1 },
            ],
            times: 2,
          },
        },
      ],
      ["SW1", "LED1", "LED2"],
    );
    const r = await run(c, 3.9, [[1000, 1200]]);
    expect(r.toggles("LED1")).toBe(3);
    // Twice a second on and off, from the first second on.
    expect(r.toggles("LED2")).toBe(1 + 3 * 4);
  });
  it("by a reading, counted on digits; without its sensor nothing holds", async () => {
    const light = MODELS.find((m) => m.part === "module/bh1750")!.worlds[0]!.lux!;
    const rules: Rule[] = [
      { when: { ref: "M1", out: "lux", above: light / 2 }, do: { ref: "LED1", act: "on" } },
      { when: { ref: "M1", out: "lux" }, do: { ref: "M3", act: "follow" } },
    ];
    const c = planned(rules, ["LED1", "M1", "M3"]);
    const r = await run(c, 4);
    expect(r.toggles("LED1")).toBe(2);
    // Whole numbers of its own steps.
    expect(Math.abs(r.models.get("M3")!.is!(4000).shows! - light)).toBeLessThanOrEqual(1);
  });
  it.each(["chip/attiny85-dip8", "chip/attiny84-dip14", "chip/atmega32a-dip40"])("%s holds them", (chip) => {
    const c = planned(
      [
        { when: pressed, do: { ref: "LED1", act: "next", among: ["LED2"] } },
        { when: { every_s: 3600 }, do: { ref: "LED2", act: "for", for_s: 60 } },
      ],
      ["SW1", "LED1", "LED2"],
      chip,
    );
    const b = catalogue.get(chip)!.board!;
    expect(compileC("plain-rules-tiny", avrC.files(c), "main", CHIPS[b.chip]!.mcu, b.clock_Hz).flash).toBeLessThan(
      1800,
    );
    expect(findings(c).filter((f) => f.rule === "firmware.rule")).toEqual([]);
  });
  it("what plain C can't do is told, and its sentences can be made from its parts", () => {
    const c = planned([{ when: { every_s: 5 }, do: { ref: "B1", act: "send", send: { key: "a" } } }] as never, [
      "SW1",
      "LED1",
    ]);
    expect(rulesView(c).rules[0]!.why).not.toBeNull();
    const open = planned([], ["SW1", "LED1"]);
    expect(rulesView(open).inputs.map((i) => i.label)).toContain("Go");
    expect(rulesView(open).outputs.map((o) => o.label)).toContain("Lamp");
  });
});
