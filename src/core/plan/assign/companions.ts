import { evaluate, nextUp } from "../../quantity";
import { debounce, ledResistor } from "../../circuit/formulas";
import {
  optionVars,
  withOptions,
  type Catalogue,
  type CompanionRule,
  type Level,
  type Part,
} from "../../parts/catalogue";
import { houseRule, type CompanionKey, type CompanionValue, type Project, type ProjectPart } from "../../project";

interface Ask {
  project: Project;
  entry: ProjectPart;
  part: Part;
  host: Part | undefined;
  rule: CompanionRule;
  vars: Record<string, number>;
}
/** Resistors that serve as well as the planned one: what a pull or a data-line resistor may be without harm. */
const STAND_IN = 1.5;
/** Of what a chip may pass through all its pins, so much for one part's lights. */
const CHIP_SHARE = 0.75;
/** A reservoir may be larger than asked, a filter capacitor may be up to ten times as large. */
const STAND_IN_F = 5;

/** The owned value nearest to the planned one, when one is close enough; else the planned one. */
function ownedOhm(ohm: number, owned: readonly number[]): number {
  const near = owned.filter((v) => v <= ohm * STAND_IN && v >= ohm / STAND_IN);
  const far = (v: number) => Math.abs(Math.log(v / ohm));
  return [...near].sort((a, b) => far(a) - far(b))[0] ?? ohm;
}
const ownedFarad = (F: number, owned: readonly number[]) =>
  owned.filter((v) => v >= F * 0.999 && v <= F * STAND_IN_F).sort((a, b) => a - b)[0] ?? F;

type Computed = Partial<Record<CompanionKey, CompanionValue>>;

/** The host's logic voltage: what its own regulator gives, else the range of the supply. */
function logicVolts(host: Part | undefined): { typ: number; max: number } {
  const key = host?.board?.logicSupply;
  if (!host || !key) return { typ: 5, max: 5.25 };
  const V = host.converters.find((c) => c.to === key)?.V ?? host.supplies[key]!.V;
  return { typ: evaluate(V.typ), max: evaluate(V.max) };
}

/** Contacts of common buttons are still within this time; the resistor spares them the capacitor's charge. */
const BOUNCE_S = 0.005;
const CONTACT_OHM = 470;

/** The filter that a contact gets when the house rule wants bounce smoothed in hardware: the capacitor outlasts the bounce. */
function bounceFilter(project: Project, rule: CompanionRule, host: Part | undefined, how: string): Computed {
  const V = logicVolts(host).typ;
  const level = Object.values(host?.levels ?? {})[0];
  const at = (x: number | string | undefined, or: number) => (x === undefined ? or : evaluate(x, { V, I: 0 }));
  const pull_ohm = how === "internal-up" ? evaluate(level?.pullUp_ohm?.typ ?? 35_000) : 10_000;
  const d = debounce({
    V,
    pull_ohm,
    series_ohm: CONTACT_OHM,
    bounce_s: BOUNCE_S,
    VIH: at(level?.VIH, V * 0.7),
    VIL: at(level?.VIL, V * 0.3),
    owned: project.drawer.capacitors_F,
  });
  return d ? { filter: { ohm: CONTACT_OHM, F: Number(d.F.toPrecision(3)), pin: rule.pin } } : {};
}

/** The levels of a board's ordinary outputs: of the first pin that drives, not of one that only listens. */
function drivingLevel(host: Part | undefined): Level | undefined {
  const pin = host?.pins.find((p) => p.level && p.offers?.some((o) => o.kind === "digital" && o.out));
  return pin && host?.levels[pin.level!];
}

const COMPUTE: Record<CompanionRule["compute"], (a: Ask) => Computed> = {
  fixed: ({ rule, vars, project: { drawer } }) => ({
    [rule.key]: {
      ...(rule.ohm !== undefined && { ohm: ownedOhm(evaluate(rule.ohm, vars), drawer.resistors_ohm) }),
      ...(rule.F !== undefined && { F: ownedFarad(evaluate(rule.F, vars), drawer.capacitors_F) }),
    },
  }),
  // What the person wants, but never more than the pin is happy with at its worst: highest supply, lowest forward
  // voltage, resistor 5 % low.
  "led-series": ({ part, host, vars, rule, project }) => {
    const owned = project.drawer.resistors_ohm;
    const led = part.elements.find((e) => e.kind === "led");
    const level = drivingLevel(host);
    const Vf = led?.Vf ?? { min: 1.8, typ: 2, max: 2.2 };
    const wish = {
      V: logicVolts(host).typ,
      Vf: evaluate(Vf.typ, vars),
      I: (vars.current_mA ?? 8) / 1000,
      pin_ohm: evaluate(level?.outTyp_ohm ?? 0),
      owned,
    };
    const wanted = ledResistor(wish)?.ohm ?? 100;
    // Many lights in one part are lit together: what the chip may pass in all is theirs to share.
    const lights = part.elements.filter((e) => e.kind === "led").length;
    const share = lights > 1 && host?.board ? ((host.board.chip_mA / 1000) * CHIP_SHARE) / lights : Infinity;
    const most = Math.min(level?.pin_mA ? level.pin_mA.recommended / 1000 : Infinity, share);
    const least = (logicVolts(host).max - evaluate(Vf.min, vars)) / (most * 0.95);
    return { [rule.key]: { ohm: least > wanted ? nextUp(least, "E12", owned) : wanted } };
  },
  // The usual value, or more where the board's pins like to give less.
  "pin-limit": ({ part, host, rule, vars, project }) => {
    const owned = project.drawer.resistors_ohm;
    const limit = drivingLevel(host)?.pin_mA?.recommended;
    const bjt = part.elements.find((e) => e.kind === "bjt");
    const drop = bjt?.kind === "bjt" ? evaluate(bjt.Vbe.min, vars) : 0;
    const least = limit ? (logicVolts(host).max - drop) / ((limit / 1000) * 0.95) : 0;
    const usual = ownedOhm(evaluate(rule.ohm ?? 330, vars), owned);
    return { [rule.key]: { ohm: least > usual ? nextUp(least, "E12", owned) : usual } };
  },
  "internal-pull": () => ({ pullUp: "internal" }),
  "button-pull": ({ project, rule, vars, host }) => {
    const how = houseRule(project, "buttonPull");
    const filter = houseRule(project, "bounce") === "rc" ? bounceFilter(project, rule, host, how) : {};
    if (how === "internal-up") return { ...filter, pullUp: "internal" };
    const ohm = ownedOhm(evaluate(rule.ohm ?? 10_000, vars), project.drawer.resistors_ohm);
    return { ...filter, ...(how === "external-up" ? { pullUp: { ohm } } : { pullDown: { ohm } }) };
  },
};

/** Any pull counts as an answer to "which pull": a deliberate choice is never overwritten. */
const answered = (entry: ProjectPart, key: CompanionKey) => {
  const has = (k: CompanionKey) => entry.companions?.[k] !== undefined;
  return key === "pullUp" || key === "pullDown" ? has("pullUp") || has("pullDown") : has(key);
};

/** The bus that a pin hangs on with others, when it is one where one pull-up serves all. */
const sharedBus = (part: Part, pin: string) => {
  const need = part.pins.find((p) => p.label === pin)?.need;
  return need?.role === "onewire" ? "onewire" : need?.kind === "i2c" ? "i2c" : null;
};

/** Whether another part on the same bus of the same board brings the pull-up already: one serves them all. */
function pulledElsewhere(
  project: Project,
  entry: ProjectPart,
  part: Part,
  rule: CompanionRule,
  hostRef: string | undefined,
  definition: (id: string) => Part | undefined,
): boolean {
  const bus = rule.key === "pullUp" ? sharedBus(part, rule.pin) : null;
  if (!bus) return false;
  return project.parts.some((other) => {
    const def = other.ref === entry.ref ? undefined : definition(other.part);
    if (!def || (other.host ?? hostRef) !== (entry.host ?? hostRef)) return false;
    const pins = def.pins.filter((p) => sharedBus(def, p.label) === bus).map((p) => p.label);
    if (!pins.length) return false;
    const own = def.elements.some((e) => e.kind === "resistor" && pins.includes(e.a) && e.b.startsWith("supply:"));
    return own || Boolean(other.companions?.pullUp);
  });
}

/** What must stand around a part, computed for this project: keys that the part does not answer yet, with values. */
export function recommendedCompanions(
  project: Project,
  entry: ProjectPart,
  catalogue: Catalogue,
  hostRef: string | undefined,
): Computed {
  const definition = (id: string) => project.customParts.find((p) => p.id === id) ?? catalogue.get(id);
  const raw = definition(entry.part);
  if (!raw) return {};
  const part = withOptions(raw, entry.options ?? {});
  const hostEntry = project.parts.find((p) => p.ref === hostRef);
  const host = hostEntry && definition(hostEntry.part);
  const vars = optionVars(raw, entry.options ?? {});
  return Object.assign(
    {},
    ...part.companions
      .filter((rule) => !answered(entry, rule.key))
      .filter((rule) => !pulledElsewhere(project, entry, part, rule, hostRef, definition))
      .map((rule) => COMPUTE[rule.compute]({ project, entry, part, host, rule, vars })),
  ) as Computed;
}
