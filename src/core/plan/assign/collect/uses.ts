import { type Need, type Part, type Pin } from "../../../parts/catalogue";
import type { Instance } from "../../../circuit/netlist";
import { drivenBy, type Serve } from "../capability";
import type { Problem, Use } from "../problem";

/** One way of taking what pins share, and the wishes that it leaves unmet. */
export interface Taking {
  uses: Use[];
  unmet: string[];
}

/** Finds or makes the resources of a problem by name. */
export class Resources {
  private readonly known = new Map<string, number>();
  constructor(private readonly p: Problem) {}

  at(id: string, says: string, limits: { modes?: number; most?: number } = {}): number {
    const there = this.known.get(id);
    if (there !== undefined) return there;
    this.known.set(id, this.p.resources.length);
    this.p.resources.push({ id, says, modes: limits.modes ?? 1, most: limits.most ?? Infinity });
    return this.p.resources.length - 1;
  }
}

const SERVO_HZ = 50;
/** Below this the eye sees a light flicker: a servo's rate is no rate for dimming. */
const STEADY_HZ = 200;

/** Rates that a need's pulses may run at: a servo's, a note's, the one that was asked for, or any. */
function ratesOf(inst: Instance, need: Need, steady: readonly string[]): string[] {
  const asked = inst.vars.pwm_Hz;
  if (need.use === "tone") return [`at the notes of ${inst.ref}`];
  if (need.use === "servo") return [`at ${asked ?? SERVO_HZ} Hz`];
  return asked ? [`at ${asked} Hz`] : ["at its usual rate", ...steady];
}

/** Rates that somebody asked for and that a light can bear too. */
export const steadyRates = (all: Iterable<Instance>): string[] => [
  ...new Set(
    [...all].flatMap((i) =>
      i.vars.pwm_Hz && i.vars.pwm_Hz >= STEADY_HZ && !i.part.pins.some((p) => p.need?.use)
        ? [`at ${i.vars.pwm_Hz} Hz`]
        : [],
    ),
  ),
];

/** Timers that could make a pin's pulses for a need, each with the rate: one entry a way. */
function pulses(r: Resources, host: Instance, pin: Pin, need: Need, rates: readonly string[]): Use[][] {
  const timers = host.part.board?.timers ?? {};
  const own = (id: string) => (host.part.board ? id : `${host.ref}:${id}`);
  const says = (id: string) =>
    `${/^(timer|TIM|slice)/i.test(id) ? "" : "timer "}${id}${host.part.board ? "" : ` of ${host.ref}`}`;
  const at = (id: string) => {
    const t = timers[id];
    return r.at(own(id), says(id), { modes: t?.frequencies, most: t?.outputs });
  };
  const anywhere = drivenBy(host.part, need.use);
  if (anywhere.length) return anywhere.flatMap((id) => rates.map((mode) => [{ resource: at(id), mode, slot: null }]));
  return (pin.offers ?? []).flatMap((o) =>
    o.kind !== "pwm"
      ? []
      : rates.flatMap((mode): Use[][] =>
          timers[o.timer]?.fixed && mode !== "at its usual rate"
            ? []
            : [[{ resource: at(o.timer), mode, slot: o.channel }]],
        ),
  );
}

/** Interrupt lines that several pins share; a line of a pin's own is no resource. */
export function sharedLines(part: Part): Set<string> {
  const count = new Map<string, number>();
  for (const p of part.pins)
    for (const o of p.offers ?? []) if (o.kind === "interrupt") count.set(o.line, (count.get(o.line) ?? 0) + 1);
  return new Set([...count].flatMap(([line, n]) => (n > 1 ? [line] : [])));
}

/** Controllers that can be one kind of bus or another, such as a universal serial interface. */
export function twoFaced(part: Part): Set<string> {
  const kinds = new Map<string, Set<string>>();
  for (const p of part.pins)
    for (const o of p.offers ?? []) if ("bus" in o) kinds.set(o.bus, (kinds.get(o.bus) ?? new Set()).add(o.kind));
  return new Set([...kinds].flatMap(([bus, k]) => (k.size > 1 ? [bus] : [])));
}

interface Ask {
  host: Instance;
  pin: Pin;
  need: Need;
  way: Extract<Serve, { ok: true }>;
  inst: Instance;
  steady: readonly string[];
  lines: ReadonlySet<string>;
  faces: ReadonlySet<string>;
}

/**
 * Every way of taking shared things when a pin serves a need: the timer and rate of its pulses, the interrupt line, the pin
 * set of its controller. Wishes that need something shared come in two ways, with and without.
 */
export function takings(r: Resources, a: Ask): Taking[] {
  const { host, pin, need, way } = a;
  const fixed: Use[] = [];
  if (way.bus && !way.software) {
    if (way.set)
      fixed.push({ resource: r.at(`${way.bus} pins`, `the pins of ${way.bus}`), mode: `set ${way.set}`, slot: null });
    if (a.faces.has(way.bus))
      fixed.push({
        resource: r.at(`${way.bus} role`, way.bus),
        mode: `used for ${need.kind.toUpperCase()}`,
        slot: null,
      });
  }
  let out: Taking[] = [{ uses: fixed, unmet: [] }];
  const cross = (ways: Use[][], wish: string | null) => {
    const without = wish ? [{ uses: [] as Use[], unmet: [wish] }] : [];
    out = out.flatMap((t) =>
      [...ways.map((uses) => ({ uses, unmet: [] as string[] })), ...without].map((w) => ({
        uses: [...t.uses, ...w.uses],
        unmet: [...t.unmet, ...w.unmet],
      })),
    );
  };
  const rates = ratesOf(a.inst, need, a.steady);
  if (need.kind === "pwm") cross(pulses(r, host, pin, need, rates), null);
  else if (need.prefer?.includes("pwm") && pin.offers?.some((o) => o.kind === "pwm"))
    cross(pulses(r, host, pin, need, rates), "pwm");
  const line = pin.offers?.find((o) => o.kind === "interrupt");
  const wants = need.kind === "interrupt" || need.require?.includes("interrupt");
  if (line?.kind === "interrupt" && a.lines.has(line.line) && (wants || need.prefer?.includes("interrupt")))
    cross(
      [[{ resource: r.at(line.line, `interrupt line ${line.line}`), mode: "watched", slot: line.line }]],
      wants ? null : "interrupt",
    );
  return out;
}
