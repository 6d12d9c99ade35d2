import type { Need, Offer, Part, Pin } from "../catalogue";

/** Whether a pin can serve a need, by which bus instance, or why not, in words. */
export type Serve = { ok: true; bus: string | null; usual: boolean } | { ok: false; why: string };

const has = (pin: Pin, test: (o: Offer) => boolean) => pin.offers?.some(test) ?? false;
const digital = (pin: Pin) => pin.offers?.find((o) => o.kind === "digital");

/** Hazards that rule a pin out altogether. */
const BARRED = new Set(["reserved", "reset"]);

const CAPS: Record<string, { test: (p: Pin) => boolean; says: string }> = {
  pwm: { test: (p) => has(p, (o) => o.kind === "pwm"), says: "has no PWM" },
  adc: { test: (p) => has(p, (o) => o.kind === "adc"), says: "has no analogue input" },
  dac: { test: (p) => has(p, (o) => o.kind === "dac"), says: "has no analogue output" },
  touch: { test: (p) => has(p, (o) => o.kind === "touch"), says: "has no touch sensing" },
  interrupt: { test: (p) => has(p, (o) => o.kind === "interrupt"), says: "has no interrupt of its own" },
  "pull-up": { test: (p) => digital(p)?.pull.includes("up") ?? false, says: "has no pull-up inside" },
  "pull-down": { test: (p) => digital(p)?.pull.includes("down") ?? false, says: "has no pull-down inside" },
  "5v-tolerant": { test: () => false, says: "does not take 5 V" },
};

/** True when the pin has the named capability (`pwm`, `adc`, `pull-up` …). */
export const hasCap = (pin: Pin, cap: string) => CAPS[cap]?.test(pin) ?? false;

/** Every bus instance through which a pin can serve a bus role; for other needs one entry with no bus. */
export function waysToServe(pin: Pin, need: Need): Serve[] {
  const barred = pin.hazards?.find((h) => BARRED.has(h.kind));
  if (barred) return [{ ok: false, why: `${pin.label} is not free: ${barred.says}` }];
  if (!pin.offers?.length) return [{ ok: false, why: `${pin.label} is not an input or output pin` }];
  for (const cap of need.require ?? [])
    if (!hasCap(pin, cap)) return [{ ok: false, why: `${pin.label} ${CAPS[cap]?.says ?? `lacks ${cap}`}` }];
  const d = digital(pin);
  const plain: Serve[] = [{ ok: true, bus: null, usual: false }];
  const no = (why: string): Serve[] => [{ ok: false, why: `${pin.label} ${why}` }];
  switch (need.kind) {
    case "digital-out":
      return d?.out ? plain : no("can't be an output");
    case "digital-in":
      return d?.in ? plain : no("can't be a digital input");
    case "digital-io":
      return d?.in && d.out ? plain : no("can't be both input and output");
    case "pwm":
    case "adc":
    case "dac":
    case "interrupt":
      return CAPS[need.kind]!.test(pin) ? plain : no(CAPS[need.kind]!.says);
    default: {
      const ways = pin.offers.flatMap((o): Serve[] =>
        "bus" in o && o.kind === need.kind && o.role === need.role
          ? [{ ok: true, bus: o.bus, usual: o.usual ?? false }]
          : [],
      );
      const role = `${need.kind.toUpperCase()} ${need.role?.toUpperCase()}`;
      return ways.length ? ways : no(`is no ${role} pin on this board`);
    }
  }
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
