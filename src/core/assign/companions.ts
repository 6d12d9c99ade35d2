import { evaluate } from "../quantity";
import { ledResistor } from "../circuits";
import { optionVars, withOptions, type Catalogue, type CompanionRule, type Part } from "../catalogue";
import { houseRule, type CompanionKey, type CompanionValue, type Project, type ProjectPart } from "../project";

interface Ask {
  project: Project;
  entry: ProjectPart;
  part: Part;
  host: Part | undefined;
  rule: CompanionRule;
  vars: Record<string, number>;
}
type Computed = Partial<Record<CompanionKey, CompanionValue>>;

/** Resistor values that stand in the project as loose parts count as owned and are preferred. */
const logicVolts = (host: Part | undefined) => {
  const supply = host?.board && host.supplies[host.board.logicSupply];
  return supply ? evaluate(supply.V.typ) : 5;
};

const COMPUTE: Record<CompanionRule["compute"], (a: Ask) => Computed> = {
  fixed: ({ rule, vars }) => ({
    [rule.key]: {
      ...(rule.ohm !== undefined && { ohm: evaluate(rule.ohm, vars) }),
      ...(rule.F !== undefined && { F: evaluate(rule.F, vars) }),
    },
  }),
  "led-series": ({ part, host, vars, rule }) => {
    const led = part.elements.find((e) => e.kind === "led");
    const pin = host?.pins.find((p) => p.offers?.length);
    const level = pin?.level ? host?.levels[pin.level] : undefined;
    const wish = {
      V: logicVolts(host),
      Vf: led ? evaluate(led.Vf.typ, vars) : 2,
      I: (vars.current_mA ?? 8) / 1000,
      pin_ohm: evaluate(level?.outTyp_ohm ?? 0),
    };
    const r = ledResistor(wish);
    return { [rule.key]: { ohm: r?.ohm ?? 100 } };
  },
  "button-pull": ({ project, rule, vars }) => {
    const how = houseRule(project, "buttonPull");
    if (how === "internal-up") return { pullUp: "internal" };
    const ohm = evaluate(rule.ohm ?? 10_000, vars);
    return how === "external-up" ? { pullUp: { ohm } } : { pullDown: { ohm } };
  },
};

/** Any pull counts as an answer to "which pull": a deliberate choice is never overwritten. */
const answered = (entry: ProjectPart, key: CompanionKey) => {
  const has = (k: CompanionKey) => entry.companions?.[k] !== undefined;
  return key === "pullUp" || key === "pullDown" ? has("pullUp") || has("pullDown") : has(key);
};

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
      .map((rule) => COMPUTE[rule.compute]({ project, entry, part, host, rule, vars })),
  ) as Computed;
}
