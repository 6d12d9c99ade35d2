import { findings, verdict } from "../checks";
import { keptPlaced, partsList, wireTable } from "../build";
import { circuitOf } from "../circuit";
import type { Catalogue } from "../parts/catalogue";
import { planAll } from "../plan/advice";
import { applyEdit, houseRule, HOUSE_RULES, type HouseRuleKey, type Project } from "../project";

/** What a choice would change in this very plan. */
export interface RuleEffect {
  value: string;
  /** It is the one in force. */
  now: boolean;
  parts: number;
  wires: number;
  verdict: string;
  /** In words, against the choice in force. */
  says: string;
}

const signed = (n: number, one: string) => `${n > 0 ? "+" : "−"}${Math.abs(n)} ${one}${Math.abs(n) === 1 ? "" : "s"}`;

function counted(p: Project, catalogue: Catalogue) {
  const c = circuitOf(p, catalogue);
  return {
    parts: partsList(c)
      .filter((b) => b.part.includes("/"))
      .reduce((n, b) => n + b.quantity, 0),
    wires: wireTable(c).reduce((n, w) => n + w.quantity, 0),
    verdict: verdict(c, findings(c)).words,
  };
}

/** What stands beside contacts by these rules: taken out with the contacts' own wires, so that the rule decides anew. */
const BESIDE: Partial<Record<HouseRuleKey, readonly string[]>> = {
  buttonPull: ["pullUp", "pullDown", "filter"],
  bounce: ["pullUp", "pullDown", "filter"],
};
function asked(p: Project, key: HouseRuleKey, catalogue: Catalogue): Project {
  const gone = BESIDE[key];
  if (!gone) return p;
  const mine = new Set(
    p.parts.filter((x) => catalogue.get(x.part)?.companions.some((r) => r.compute === "button-pull")).map((x) => x.ref),
  );
  return {
    ...p,
    parts: p.parts.map((x) =>
      x.companions && mine.has(x.ref)
        ? { ...x, companions: Object.fromEntries(Object.entries(x.companions).filter(([k]) => !gone.includes(k))) }
        : x,
    ),
    links: p.links.filter((l) => l.locked || ![l.from, l.to].some((e) => mine.has(e.split(".")[0]!))),
  };
}

/** The plan as it would be with another choice, its placement kept up as with any edit. */
function tryRule(project: Project, key: HouseRuleKey, value: string, catalogue: Catalogue): Project {
  const rules = { [key]: value } as Project["houseRules"];
  const free = asked(applyEdit(project, { type: "setHouseRules", rules }, catalogue), key, catalogue);
  return keptPlaced(planAll(free, catalogue).project, catalogue);
}

/** What each choice of a rule makes of a plan: pieces, wires and the verdict, each tried by planning with it. */
export function effectsOf(project: Project, key: HouseRuleKey, catalogue: Catalogue): RuleEffect[] {
  const now = houseRule(project, key);
  const tried = HOUSE_RULES[key].map((value) => {
    return { value, ...counted(value === now ? project : tryRule(project, key, value, catalogue), catalogue) };
  });
  const here = tried.find((t) => t.value === now)!;
  return tried.map((t) => {
    const list = [
      t.parts !== here.parts && signed(t.parts - here.parts, "part"),
      t.wires !== here.wires && signed(t.wires - here.wires, "wire"),
      t.verdict !== here.verdict && t.verdict,
    ].filter((x): x is string => Boolean(x));
    return {
      ...t,
      now: t.value === now,
      says: t.value === now ? "in force" : list.length ? list.join(", ") : "changes nothing here",
    };
  });
}
