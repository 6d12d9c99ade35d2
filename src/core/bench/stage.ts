import type { Circuit } from "../circuit";
import type { Wire } from "../firmware/devices/run";
import { driverParts } from "../firmware/pins";
import type { SimBench } from "../firmware/sim/bench";
import type { Tried } from "../firmware/sim";
import { MODELS } from "./models";
import type { As, BusPart, Model, World } from "./models/types";

/** What a part does, as a person would see it. */
export interface Seen {
  /** Pins that the program drives, by name. */
  pins: ReadonlyMap<string, 0 | 1>;
  /** Lights of a strip: green, red, blue of each. */
  strip: readonly number[] | null;
  /** Lights of a grid. */
  lit: readonly boolean[] | null;
  /** What a part that acts is doing: an angle, a tone, a number on a display. */
  is: World | null;
}

/** Parts of a plan on a bench of their own: what they feel can be set, contacts pressed, and what they do is seen. */
export interface Stage extends SimBench {
  /** What a part can feel, with what it feels now; empty for one that feels nothing. */
  feels(ref: string): World;
  /** Sets some of what a part feels. Unknown parts and quantities are refused with a sentence. */
  set(ref: string, quantity: string, value: number, now: number): string | null;
  /** Holds or lets go a contact, or a key of a grid. */
  press(ref: string, down: boolean, place?: number): string | null;
  seen(ref: string, now: number): Seen;
}

/** Messages that are kept, so that a part that feels something else can be brought to where it was. */
const MOST_KEPT = 20_000;

/** A model whose world can change: all that it was told is told to the one that takes its place. */
class Felt {
  private part: BusPart;
  private told: ((p: BusPart) => void)[] = [];
  constructor(
    private readonly model: Model,
    public world: World,
    private readonly as: As,
  ) {
    this.part = model.make(world, as);
  }

  private keep<T>(f: (p: BusPart) => T): T {
    if (this.told.length < MOST_KEPT) this.told.push(f);
    return f(this.part);
  }

  feel(world: World): void {
    this.world = world;
    this.part = this.model.make(world, this.as);
    for (const f of this.told) f(this.part);
  }

  is = (now: number) => this.part.is?.(now) ?? null;

  get wire(): Wire {
    const ask = (bytes: readonly number[], n: number, now: number) =>
      this.keep((p) => (p.ask ? p.ask(bytes, n, now) : p.write(bytes, now) ? p.read(n, now) : null));
    return {
      write: (bytes, now) => this.keep((p) => p.write(bytes, now)),
      read: (n, now) => this.keep((p) => p.read(n, now)),
      ask,
      pin: (label, level, now) => this.keep((p) => p.pin?.(label, level, now)),
      raw: () => this.part.raw?.() ?? null,
    };
  }
}

/** The parts of one board with their models, each in its first world until it is set. */
export function stageOf(c: Circuit, host: string, target: Tried): Stage {
  const all = new Map(driverParts(c, host, target, (b) => b).map((p) => [p.inst.ref, p]));
  const models = new Map<string, Felt>();
  for (const [ref, p] of all) {
    const m = MODELS.find((x) => x.part === p.inst.part.id);
    if (!m) continue;
    const as: As = {
      chain: p.chain,
      options: p.options,
      ...(p.outs !== undefined && { outs: p.outs }),
      ...(p.rests !== undefined && { rests: p.rests }),
      ...(p.pulsed && { pulsed: true }),
      ...(p.dims && { dims: p.dims }),
    };
    models.set(ref, new Felt(m, m.worlds[0]!, as));
  }
  const pins = new Map<string, Map<string, 0 | 1>>();
  const strips = new Map<string, readonly number[]>();
  const dims = new Map<string, number>();
  const grids = new Map<string, readonly boolean[]>();
  const down = new Set<string>();
  const contact = (ref: string, place?: number) => (place === undefined ? ref : `${ref}.${place}`);
  const isContact = (ref: string, place?: number) => {
    const p = all.get(ref);
    const kind = p?.inst.part.bringup?.driver;
    return place === undefined
      ? kind === "button"
      : kind === "key-grid" && place < (p!.inst.part.addresses?.length ?? 0);
  };
  return {
    wire: (ref) => models.get(ref)?.wire ?? null,
    level: (ref) => {
      const p = all.get(ref);
      return down.has(ref) !== (p?.activeLow ?? false) ? 1 : 0;
    },
    drive(ref, pin, level) {
      pins.set(ref, (pins.get(ref) ?? new Map<string, 0 | 1>()).set(pin, level));
    },
    dim: (ref, percent) => void dims.set(ref, percent),
    held: (ref, place) => down.has(contact(ref, place)),
    lit: (ref, places) => void grids.set(ref, places),
    strip: (ref, grb) => void strips.set(ref, grb),
    feels: (ref) => models.get(ref)?.world ?? {},
    set(ref, quantity, value) {
      const m = models.get(ref);
      if (!m) return `${ref} feels nothing that can be set`;
      if (!(quantity in m.world))
        return `${ref} does not feel "${quantity}"; it feels ${Object.keys(m.world).join(", ") || "nothing"}`;
      if (!Number.isFinite(value)) return `${ref}.${quantity}: a number is needed`;
      m.feel({ ...m.world, [quantity]: value });
      return null;
    },
    press(ref, isDown, place) {
      if (!isContact(ref, place)) return `${ref} is no contact that can be pressed`;
      if (isDown) down.add(contact(ref, place));
      else down.delete(contact(ref, place));
      return null;
    },
    seen: (ref, now) => ({
      pins: pins.get(ref) ?? new Map(),
      strip: strips.get(ref) ?? null,
      lit: grids.get(ref) ?? null,
      is: models.get(ref)?.is(now) ?? (dims.has(ref) ? { bright_pct: dims.get(ref)! } : null),
    }),
  };
}
