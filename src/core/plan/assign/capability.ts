import { isBusKind, isSoftwareBus, type Need, type Offer, type Part, type Pin } from "../../parts/catalogue";

/** Whether a pin can serve a need, by which bus instance, or why not, in words. */
export type Serve =
  { ok: true; bus: string | null; usual: boolean; set?: string; software?: boolean } | { ok: false; why: string };

/** What is known of the part that the pin belongs to, beyond the pin. */
export interface HostFacts {
  part?: Part;
  /** The radio will run: some converters are then not to be had. */
  radio?: boolean;
  /** The part's bus may be done by the program on ordinary pins. */
  software?: boolean;
}

const has = (pin: Pin, test: (o: Offer) => boolean) => pin.offers?.some(test) ?? false;
const digital = (pin: Pin) => pin.offers?.find((o) => o.kind === "digital");

/** Hazards that rule a pin out altogether. */
const BARRED = new Set(["reserved", "reset"]);

/** Whether the pin takes 5 V: its level set is made for more than its own supply. */
function takes5V(pin: Pin, part: Part | undefined): boolean {
  const top = pin.level ? part?.levels[pin.level]?.absMax : undefined;
  return typeof top === "number"
    ? top >= 5.25
    : top === "V+0.5" && Number(part?.supplies[part.board?.logicSupply ?? ""]?.V.typ) >= 4.5;
}

const CAPS: Record<string, { test: (p: Pin, part?: Part) => boolean; says: string }> = {
  pwm: { test: (p) => has(p, (o) => o.kind === "pwm"), says: "has no PWM" },
  adc: { test: (p) => has(p, (o) => o.kind === "adc"), says: "has no analogue input" },
  dac: { test: (p) => has(p, (o) => o.kind === "dac"), says: "has no analogue output" },
  touch: { test: (p) => has(p, (o) => o.kind === "touch"), says: "has no touch sensing" },
  interrupt: { test: (p) => has(p, (o) => o.kind === "interrupt"), says: "has no interrupt of its own" },
  "pull-up": { test: (p) => digital(p)?.pull.includes("up") ?? false, says: "has no pull-up inside" },
  "pull-down": { test: (p) => digital(p)?.pull.includes("down") ?? false, says: "has no pull-down inside" },
  "5v-tolerant": { test: takes5V, says: "does not take 5 V" },
};

/** True when the pin has the named capability (`pwm`, `adc`, `pull-up` …). */
export const hasCap = (pin: Pin, cap: string, part?: Part) => CAPS[cap]?.test(pin, part) ?? false;

/** Timers of a board from which the core drives servos or tones on any output pin. */
export const drivenBy = (part: Part | undefined, use: Need["use"]) =>
  use ? Object.entries(part?.board?.timers ?? {}).flatMap(([id, t]) => (t.drives?.includes(use) ? [id] : [])) : [];

/** What a line of a bus asks of an ordinary pin when the program does the controller's work. */
function asSoftware(pin: Pin, need: Need): boolean {
  const d = digital(pin);
  if (need.kind === "i2c") return Boolean(d?.in && d.out);
  if (!isSoftwareBus(need.kind)) return false;
  const reads = need.role === "rx" || need.role === "miso" || need.role === "cts";
  return reads ? Boolean(d?.in) : Boolean(d?.out);
}

function judge(pin: Pin, need: Need, host: HostFacts): Serve[] {
  const no = (why: string): Serve[] => [{ ok: false, why: `${pin.label} ${why}` }];
  const barred = pin.hazards?.find((h) => BARRED.has(h.kind));
  if (barred) return no(`is not free: ${barred.says}`);
  if (!pin.offers?.length) return no("is not an input or output pin");
  for (const cap of need.require ?? []) if (!hasCap(pin, cap, host.part)) return no(CAPS[cap]?.says ?? `lacks ${cap}`);
  const d = digital(pin);
  const plain: Serve[] = [{ ok: true, bus: null, usual: false }];
  switch (need.kind) {
    case "digital-out":
      return d?.out ? plain : no("can't be an output");
    case "digital-in":
      return d?.in ? plain : no("can't be a digital input");
    case "digital-io":
      return d?.in && d.out ? plain : no("can't be both input and output");
    case "adc":
      if (host.radio && pin.hazards?.some((h) => h.kind === "adc-radio"))
        return no("measures nothing while the radio runs");
      return CAPS.adc!.test(pin) ? plain : no(CAPS.adc!.says);
    case "pwm":
      if (drivenBy(host.part, need.use).length) return d?.out ? plain : no("can't be an output");
      return CAPS.pwm!.test(pin) ? plain : no(CAPS.pwm!.says);
    case "dac":
    case "interrupt":
      return CAPS[need.kind]!.test(pin) ? plain : no(CAPS[need.kind]!.says);
    case "program":
      return has(pin, (o) => o.kind === "program" && o.role === need.role)
        ? plain
        : no(`is not the ${need.role} pin for programming`);
    default: {
      const ways = pin.offers.flatMap((o): Serve[] =>
        "bus" in o && o.kind === need.kind && o.role === need.role
          ? [{ ok: true, bus: o.bus, usual: o.usual ?? false, ...(o.set && { set: o.set }) }]
          : [],
      );
      if (host.software && isBusKind(need.kind) && asSoftware(pin, need))
        ways.push({ ok: true, bus: "software", usual: true, software: true });
      const role = `${need.kind.toUpperCase()} ${need.role?.toUpperCase()}`;
      return ways.length
        ? ways
        : no(
            need.kind === "bridge"
              ? `is not where a bridge's ${need.role?.toUpperCase()} goes`
              : `is no ${role} pin on this board`,
          );
    }
  }
}

const judged = new WeakMap<Pin, { part: Part | undefined; by: Map<string, readonly Serve[]> }>();

/**
 * Every bus instance through which a pin can serve a bus role; for other needs one entry with no bus. Remembered by the
 * pin's definition and by what the answer depends on: planning and the lattice ask thousands of times at every edit.
 */
export function waysToServe(pin: Pin, need: Need, host: HostFacts = {}): readonly Serve[] {
  let known = judged.get(pin);
  if (!known || known.part !== host.part) judged.set(pin, (known = { part: host.part, by: new Map() }));
  const { kind, role, use, require } = need as Need & { role?: string };
  const key = `${kind} ${role ?? ""} ${use ?? ""} ${host.radio ? 1 : 0}${host.software ? 1 : 0} ${require?.join() ?? ""}`;
  const there = known.by.get(key);
  if (there) return there;
  const ways = judge(pin, need, host);
  known.by.set(key, ways);
  return ways;
}

/** Two needs with the same share key may sit on one pin of one bus: clock and data lines, never selects. */
export function shareKey(need: Need): string | null {
  if (need.kind === "i2c") return `i2c.${need.role}`;
  if (need.kind === "spi" && need.role !== "cs") return `spi.${need.role}`;
  return null;
}

/** How many pins of the board have each capability, for scarcity prices. */
export function capabilityCounts(board: Part): Map<string, number> {
  const counts = new Map<string, number>();
  for (const p of board.pins) {
    if (p.hazards?.some((h) => BARRED.has(h.kind))) continue;
    for (const kind of new Set(p.offers?.map((o) => o.kind))) counts.set(kind, (counts.get(kind) ?? 0) + 1);
  }
  return counts;
}
