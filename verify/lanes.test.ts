import { beforeAll, describe, expect, it } from "vitest";
import { MODELS } from "../src/core/bench/models";
import type { As, BusPart, World } from "../src/core/bench/models/types";
import { circuitOf } from "../src/core/circuit";
import { worksAnywhere } from "../src/core/firmware/carriers";
import { DEVICES, wired } from "../src/core/firmware/devices";
import { machineOf } from "../src/core/firmware/devices/run";
import type { Device } from "../src/core/firmware/devices/types";
import { gaps } from "../src/core/firmware/gaps";
import { driverParts } from "../src/core/firmware/pins";
import { restOf } from "../src/core/firmware/rest";
import { micropython } from "../src/core/firmware/targets/micropython";
import { sketch } from "../src/core/firmware/targets/sketch";
import { assign } from "../src/core/plan/assign";
import type { Rule } from "../src/core/project";
import { BOARD3, BOARD5, catalogue, make, USB } from "../src/core/testing";
import { benchProgram, compileSketch, coreArchive, simulateWith } from "./avr/toolchain";
import { runProgram } from "./micropython/run";

const OUTPUTS = "module/pca9685";
const SUPPLY = { ref: "S2", part: "supply/adapter-5v-2a" };
const deviceOf = (id: string) => DEVICES.find((d) => d.id === id)!;
const modelOf = (id: string) => MODELS.find((m) => m.part === id)!;
const needed = (id: string) => catalogue.get(id)!.pins.filter((p) => p.need && !p.need.optional);

/** Parts that are only told something, over pins which can all be outputs of another part; those that want tones apart. */
const COULD = DEVICES.map((d) => d.id).filter((id) => {
  const d = deviceOf(id).of(wired({}));
  const over = d.over?.kind === "pins" ? d.over : null;
  return (
    over !== null &&
    !over.in &&
    d.takes !== undefined &&
    // An enable that is left to its jumper would be told apart by nothing here.
    (over.out ?? []).every((o) => needed(id).some((p) => p.label === o.pin)) &&
    needed(id).every((p) => worksAnywhere(catalogue.get(id)!, p.label, "share"))
  );
});

const sounds = (id: string) => {
  const { over } = deviceOf(id).of(wired({}));
  return over?.kind === "pins" && (over.out ?? []).some((o) => o.as === "tone");
};
const HUNG = COULD.filter((id) => !sounds(id));

function hung(id: string, board: object) {
  const labels = needed(id).map((p) => p.label);
  const links = labels.map((l, i) => ({ from: `M2.${l}`, to: `M1.PWM${i + 3}`, locked: true }));
  const parts = [SUPPLY, { ref: "M1", part: OUTPUTS }, { ref: "M2", part: id, label: "Part" }];
  const c = circuitOf(assign(make([board as never, USB, ...parts], [], { links }), catalogue).project, catalogue);
  const of = (ref: string) => driverParts(c, "B1", "micropython", (b) => b).find((p) => p.inst.ref === ref)!;
  return { c, of, lane: (l: string) => 3 + labels.indexOf(l) };
}
/** What being told something does to the part, by the interpreter. */
function goal(id: string, d: Device, want: number): World {
  const part = modelOf(id).make({}, {});
  const machine = machineOf(d, part);
  machine.want = want;
  for (let now = 0; now < 1000; now += Math.max(1, machine.turn(now)));
  return part.is!(1000);
}
const asWired = (p: ReturnType<typeof driverParts>[number]): As => ({
  chain: 1,
  outs: p.outs ?? 0,
  rests: p.rests ?? 0,
  ...(p.pulsed && { pulsed: true }),
});

/** The part on the outputs: what its model does as they change. */
function watched(x: ReturnType<typeof hung>, id: string, d: Device) {
  const outs = modelOf(OUTPUTS).make({}, asWired(x.of("M1")));
  const model = modelOf(id).make({}, {});
  const did: World[] = [];
  const pins = d.over?.kind === "pins" ? (d.over.out ?? []) : [];
  const heard: BusPart = {
    ...outs,
    write(b, now) {
      const ok = outs.write(b, now);
      const is = outs.is!(now);
      const bytes = pins.flatMap((o) => {
        const on = is[`on_${x.lane(o.pin)}`]!;
        const us = Math.round((on * 1e6) / 4096 / is.Hz!);
        if (o.as === "pulse") return [us >> 8, us & 255];
        if (o.as === "duty") return [Math.round((on * 255) / 4096)];
        const high = on >= 2048 ? 1 : 0;
        return [o.as === "switch" ? high ^ (restOf(x.of("M2"), o.pin) === 1 ? 1 : 0) : high];
      });
      if (bytes.every((v) => Number.isFinite(v))) {
        model.write(bytes, now);
        did.push(model.is!(now));
      }
      return ok;
    },
  };
  return { heard, did };
}
const NEAR = 0.7;
const alike = (a: World, b: World) => Object.entries(b).every(([k, v]) => Math.abs((a[k] ?? NaN) - v) <= NEAR);
function inOrder(id: string, d: Device, did: readonly World[]) {
  let k = 0;
  for (const want of d.proof?.kind === "seen" ? d.proof.show : []) {
    const at = did.findIndex((is, i) => i >= k && alike(is, goal(id, d, want)));
    expect(at, `${want}: ${JSON.stringify(did.slice(-8))}`).toBeGreaterThanOrEqual(0);
    k = at;
  }
}
const ASKED = /^YL1 act M2 told=\S+ fresh=1 info$/;

describe("parts on the outputs of a maker of pulses", () => {
  beforeAll(() => {
    coreArchive();
  }, 240_000);
  it("are many: servos, motor drivers, relays, lights", () => {
    for (const id of ["module/servo-small", "module/relay-1", "module/drv8833", "module/mosfet-switch"])
      expect(HUNG).toContain(id);
    expect(HUNG.length).toBeGreaterThanOrEqual(12);
  });
  it.each(COULD.filter(sounds).map((id) => [id]))("%s is told why it stays silent: one rate is no tone", (id) => {
    expect(gaps(hung(id, BOARD3).c)).toEqual([
      expect.objectContaining({ ref: "M2", why: expect.stringContaining("one rate") as string }),
    ]);
  });
  it.each(HUNG.map((id) => [id]))("%s in MicroPython", async (id) => {
    const x = hung(id, BOARD3);
    expect(gaps(x.c)).toEqual([]);
    const d = deviceOf(id).of(x.of("M2"));
    const w = watched(x, id, d);
    const typed = 'clock.STDIN.typed = [(2500, "2"), (2501, "\\n")]';
    const ms = 6000 + (d.proof?.kind === "seen" ? d.proof.show.length * (d.proof.ms ?? 700) : 0);
    const bus = new Map([[0x40, w.heard]]);
    const r = await runProgram(micropython.files(x.c), "bringup.py", `clock.END[0] = ${ms}\n${typed}`, bus);
    expect(r.lines).toContain("YL1 sensor M1 fresh=1 ok");
    expect(r.lines.some((l) => ASKED.test(l))).toBe(true);
    inOrder(id, d, w.did);
  });
  // Each way of an output once: a pulse, a share beside levels, a level that rests high.
  it.each([["module/servo-small"], ["module/relay-1"], ["module/drv8833"], ["discrete/led-rgb-cc"]])(
    "%s in simavr",
    async (id) => {
      const x = hung(id, BOARD5);
      const d = deviceOf(id).of(x.of("M2"));
      const w = watched(x, id, d);
      const { elf } = compileSketch(`lanes-${id.split("/")[1]}`, sketch.files(x.c), "bringup");
      const careful = d.proof?.kind === "seen" && d.proof.careful !== undefined;
      const keys = careful ? ["key:2500:2", "key:2600:~"] : [];
      const r = await simulateWith(benchProgram(), elf, 6, new Map([[0x40, w.heard]]), undefined, undefined, keys);
      expect(r.lines).toContain("YL1 sensor M1 fresh=1 ok");
      inOrder(id, d, w.did);
    },
    60_000,
  );
  it("compile in C++", () => {
    for (const id of HUNG) compileSketch("lanes", sketch.files(hung(id, BOARD5).c), "starter");
  }, 240_000);
});

describe("a rule that tells a servo and a light on its outputs", () => {
  const KEY = { ref: "SW1", part: "discrete/button", label: "Go" };
  const parts = [
    SUPPLY,
    { ref: "M1", part: OUTPUTS },
    { ref: "M2", part: "module/servo-small", label: "Arm" },
    { ref: "D1", part: "discrete/led-red", label: "Eye" },
    KEY,
  ];
  const links = [
    { from: "M2.SIG", to: "M1.PWM3", locked: true },
    { from: "D1.A", to: "M1.PWM9", locked: true },
  ];
  const when = { ref: "SW1", out: "pressed", is: 1 };
  const rules: Rule[] = [
    { when, do: { ref: "M2", act: "set", value: 90 } },
    { when, do: { ref: "D1", act: "on" } },
  ];
  const plan = (board: object) =>
    circuitOf({ ...assign(make([board as never, USB, ...parts], [], { links }), catalogue).project, rules }, catalogue);
  it("in MicroPython: the middle and lit while it is held, also after the part was away", async () => {
    const c = plan(BOARD3);
    const of = (ref: string) => driverParts(c, "B1", "micropython", (b) => b).find((p) => p.inst.ref === ref)!;
    const key = c.netlist.bindings.find((b) => b.ref === "SW1")!.hostPin.replace(/\D/g, "");
    for (const level of [0, 1]) {
      let model = modelOf(OUTPUTS).make({}, asWired(of("M1")));
      let began = false;
      const heard: BusPart = {
        write(b, now) {
          // Its power fails for a while: it comes back as it is after power-on.
          if (now > 2000 && now < 3000) return false;
          if (now >= 3000 && !began) {
            began = true;
            model = modelOf(OUTPUTS).make({}, asWired(of("M1")));
          }
          return model.write(b, now);
        },
        read: (n, now) => (now > 2000 && now < 3000 ? null : model.read(n, now)),
        pin: (l, v, now) => model.pin?.(l, v, now),
      };
      const world = `clock.END[0] = 7000\nmachine.LEVELS[${key}] = ${level}`;
      await runProgram(micropython.files(c), "main.py", world, new Map([[0x40, heard]]));
      const is = model.is!(7000);
      expect([is.on_3, is.on_9]).toEqual(level ? [0, 0] : [307, 4096]);
    }
  });
});
