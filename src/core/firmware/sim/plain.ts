/** The starter in plain C, interpreted: the loop of a bare chip, pass by pass, as `main.c` is written. */
import type { Circuit } from "../../circuit";
import { fingerprint } from "../../project";
import { DEVICES } from "../devices";
import { machineOf } from "../devices/run";
import { NO_NUMBER } from "../devices/text";
import { driverParts } from "../pins";
import { told } from "../rules/resolve";
import { hold_ms, readers, settle_ms, watchedOf } from "../sleep";
import { contextOf } from "../targets/avr-c";
import { onOf, type Talk } from "../targets/avr-c/devices";
import type { Line } from "../targets/avr-c/parts";
import { grounded, starterTalks } from "../targets/avr-c/program";
import { pixelsOf } from "../targets/avr-c/strips";
import type { SimBench } from "./bench";
import type { SimPart } from "./parts";
import { rulesOf } from "./rules";
import { fixed } from "./show";
import type { Said, SimProgram } from "./types";

/** How often a pass of the loop is looked at, ms: shorter than anything that a person does. */
const PASS_MS = 5;
const RULES_MS = 20;
const BLINK_MS = 500;
const STRIP_MS = 60;
/** The converter's middle, with room against flicker. */
const [LOW, HIGH] = [480, 544];

const kinds = new Map(DEVICES.map((d) => [d.id, d]));

/** A voltage in steps of 1/1024, as the part's model gives it: two bytes for each of the pins that its data read. */
function measured(l: Line, bench: SimBench, now: number): number {
  const over = kinds.get(l.p.inst.part.id)?.of(l.p).over;
  const pins = over?.kind === "pins" ? (over.in ?? []) : [];
  const bytes = bench.wire(l.p.inst.ref)?.read(2 * pins.length, now);
  const i = 2 * Math.max(0, pins.indexOf(l.label));
  return bytes ? (bytes[i]! * 256 + bytes[i + 1]!) >> 6 : 0;
}

/** Something that is on or off: how, and what it is then told. */
interface Worked {
  ref: string;
  put(on: boolean, now: number): void;
}

/** Its readings on the console. */
function values({ device: d }: Talk, machine: SimPart["machine"]): string {
  if (!machine?.fresh) return "--";
  return d.out
    .map((q, i) => {
      const v = machine.out.get(q.name)!;
      const zero = q.after && v < 10 ? "0" : "";
      return `${i ? (q.after ?? " ") : ""}${zero}${fixed(v, q.digits, q.shown ?? q.digits)}${q.unit ? ` ${q.unit}` : ""}`;
    })
    .join("");
}

/** The program of a bare chip. */
export function plainProgramOf(c: Circuit, host: string, bench: SimBench): SimProgram {
  const x = contextOf(c, host);
  const said: Said[] = [];
  const parts = new Map<string, SimPart>();
  /** The chip's own clock stands still while it sleeps. */
  let ticks = 0;
  let slept = 0;
  const real = () => ticks + slept;
  const say = (line: string) => void said.push({ at: real(), line });

  const machines = x.talks.map((t) => {
    const machine = machineOf(t.device, bench.wire(t.p.inst.ref) ?? { write: () => false, read: () => null });
    if (t.device.text) machine.want = NO_NUMBER;
    parts.set(t.p.inst.ref, { p: t.p, machine, values: () => (machine.fresh ? machine.out : null) });
    return { t, machine, due: 0 };
  });
  const machine = (ref: string) => machines.find((m) => m.t.p.inst.ref === ref);
  for (const l of x.lines) if (!parts.has(l.p.inst.ref)) parts.set(l.p.inst.ref, { p: l.p });

  const turned = (l: Extract<Line, { kind: "light" | "load" }>): Worked => ({
    ref: l.p.inst.ref,
    put: (on, now) => bench.drive(l.p.inst.ref, l.label, on === (l.lit === 1) ? 1 : 0, now),
  });
  const strip = (l: Line) => {
    const cap = Math.floor((l.p.vars.brightness ?? 1) * 255);
    const light = (...rgb: [number, number, number]) => {
      const [r, g, b] = rgb.map((v) => Math.floor((v * cap) / 255));
      return [g!, r!, b!];
    };
    let was: number | null = null;
    const show = (from: number, n: number, inside: number[], outside: number[], now: number) =>
      bench.strip(
        l.p.inst.ref,
        Array.from({ length: pixelsOf(l.p) }, (_, i) => (i >= from && i < from + n ? inside : outside)).flat(),
        now,
      );
    return {
      tell(lit: number, now: number) {
        if (was === lit) return;
        was = lit;
        show(0, lit, light(255, 255, 160), [0, 0, 0], now);
      },
      runs: (place: number, now: number) => show(place, 1, light(255, 255, 160), light(40, 60, 20), now),
    };
  };
  const of = <K extends Line["kind"]>(kind: K) =>
    x.lines.filter((l): l is Extract<Line, { kind: K }> => l.kind === kind);
  const strips = new Map(of("strip").map((l) => [l.p.inst.ref, strip(l)]));
  const contacts = of("contact");
  const [volt] = of("voltage");
  const pressed = (l: (typeof contacts)[number], now: number) =>
    (bench.level(l.p.inst.ref, l.label, now) === l.pressed) as boolean;
  const worked: Worked[] = [
    ...of("light").map(turned),
    ...of("load").map(turned),
    ...of("strip").map((l) => ({
      ref: l.p.inst.ref,
      put: (on: boolean, now: number) => strips.get(l.p.inst.ref)!.tell(on ? pixelsOf(l.p) : 0, now),
    })),
    ...machines.flatMap(({ t, machine: m }) => {
      const on = onOf(t);
      const put = (is: boolean) => void (m.want = is ? on! : t.device.takes!.rest);
      return on === null ? [] : [{ ref: t.p.inst.ref, put }];
    }),
  ];
  const ruled = x.rules && new Set(x.rules.flatMap((r) => told(r).map((a) => a.part.inst.ref)));
  const pairs = ruled ? [] : contacts.slice(0, worked.length).map((k, i) => ({ k, w: worked[i]! }));
  const paired = new Set(pairs.map(({ w }) => w.ref));
  const ruling =
    x.rules &&
    rulesOf(
      x.rules,
      {
        value: (p, name) => {
          const m = machine(p.inst.ref);
          if (m) return m.machine.fresh ? m.machine.out.get(name)! : null;
          const k = contacts.find((l) => l.p.inst.ref === p.inst.ref);
          return k ? Number(pressed(k, real())) : null;
        },
        log: () => undefined,
        tell: (p, v) => {
          const m = machine(p.inst.ref);
          if (m) m.machine.want = v;
          else if (strips.has(p.inst.ref)) strips.get(p.inst.ref)!.tell(v, real());
          else worked.find((w) => w.ref === p.inst.ref)?.put(v !== 0, real());
        },
      },
      watchedOf(x.rules),
    );
  const lights = of("light")
    .filter((l) => !ruled || !l.p.dims)
    .map(turned);
  let free = lights.filter((l) => (ruled ? !ruled.has(l.ref) : !paired.has(l.ref)));
  const [byVolt] = !ruled && !contacts.length && volt ? free : [];
  if (byVolt) free = free.slice(1);
  const running = of("strip").filter((l) => !ruled?.has(l.p.inst.ref) && !paired.has(l.p.inst.ref));
  const counting = machines.filter(({ t }) => {
    const word = t.device.takes?.word;
    return (word === "number" || word === "digit") && !ruled?.has(t.p.inst.ref) && !paired.has(t.p.inst.ref);
  });
  const held = x.nap && ruling ? hold_ms(x.nap, x.rules!, x.talks.map((t) => t.p)) : 0; // prettier-ignore
  const settle = x.rules ? settle_ms(x.rules) : 0;

  let woke = 0;
  let [look, blink, second, step, place, seconds, awake] = [0, 0, 0, 0, 0, 0, 0];
  let [lit, on] = [false, false];
  const console = () => {
    seconds++;
    const says = [
      ...contacts.map((k) => ` ${k.p.ref}=${bench.level(k.p.inst.ref, k.label, real())}`),
      ...of("voltage").map((l) => ` ${l.p.ref}=${measured(l, bench, real())}`),
      ...machines.flatMap(({ t, machine: m }) => (t.device.out.length ? [` ${t.p.ref}=${values(t, m)}`] : [])),
    ];
    for (const { t, machine: m } of counting) m.want = seconds % (Math.min(t.device.takes!.range[1], 9999) + 1);
    say(`running ${seconds} s${says.join("")}`);
  };
  const nap = ({ asleep_ms }: NonNullable<typeof x.nap>) => {
    for (const l of free) l.put(false, real());
    for (const p of readers(x.talks.map((t) => t.p))) machine(p.inst.ref)!.machine.fresh = false;
    slept += asleep_ms;
    seconds += asleep_ms / 1000;
    woke = ticks;
  };
  const pass = () => {
    for (const { k, w } of pairs) w.put(pressed(k, real()), real());
    for (const m of machines) if (ticks >= m.due) m.due = ticks + Math.max(PASS_MS, m.machine.turn(real()));
    if (ruling && real() >= look && !(held && ticks - woke < held)) {
      look = real() + RULES_MS;
      ruling.look(real());
    }
    if (byVolt) {
      const v = measured(volt!, bench, real());
      const up = grounded(x, volt!);
      if (v < LOW) on = !up;
      else if (v > HIGH) on = up;
      byVolt.put(on, real());
    }
    if (ticks - step >= STRIP_MS) {
      step += STRIP_MS;
      for (const l of running) strips.get(l.p.inst.ref)!.runs(place % pixelsOf(l.p), real());
      place++;
    }
    if (ticks - blink >= BLINK_MS) {
      blink += BLINK_MS;
      lit = !lit;
      for (const l of free) l.put(lit, real());
    }
    const full = ticks - second >= 1000;
    if (full) second += 1000;
    if (full && starterTalks(x)) console();
    if (!x.nap) return;
    // What works something is never left alone.
    const busy = (settle && ruling && real() - ruling.busy() < settle) || pairs.some(({ k }) => pressed(k, real()));
    if (busy) awake = 0;
    if (full && ++awake >= x.nap.awake_ms / 1000) {
      awake = 0;
      nap(x.nap);
    }
  };
  if (starterTalks(x)) say(`YL1 plan ${host} id=${fingerprint(c.project)} info`);
  return {
    said,
    parts,
    left: driverParts(c, host, "avr-c", (b) => b)
      .filter((p) => !parts.has(p.inst.ref))
      .map((p) => ({ ref: p.ref, label: p.label })),
    run(until) {
      for (; real() <= until; ticks += PASS_MS) pass();
    },
  };
}
