import { recommendedCompanions } from "../assign";
import type { Circuit } from "../circuit";
import type { LedPath } from "../netlist";
import { label, mA, owner, round } from "./help";
import type { Finding, Fix, Rule } from "./types";

/** A fresh resistor of the right value for a light, whatever stands there now. */
function resistorFix(c: Circuit, ref: string, id = "series-resistor"): Fix[] {
  const entry = c.project.parts.find((p) => p.ref === owner(c, ref));
  if (!entry) return [];
  const { seriesResistor: _old, ...others } = entry.companions ?? {};
  const host = c.netlist.instance(entry.ref)?.host;
  const value = recommendedCompanions(c.project, { ...entry, companions: others }, c.catalogue, host).seriesResistor;
  if (!value || value === "internal") return [];
  return [
    {
      id,
      label: `Put ${value.ohm} Ω in series with ${label(c, entry.ref)}`,
      edits: [{ type: "setCompanion", ref: entry.ref, key: "seriesResistor", value }],
    },
  ];
}

const pathPins = (p: LedPath) => [p.high, p.low].flatMap((e) => (e.kind === "pin" ? [e.end] : []));

const noResistor: Rule = {
  rule: "led.no-resistor",
  says: "An LED without a resistor takes whatever the supply gives until it or the pin fails.",
  check: (c) =>
    c.leds
      .filter((p) => p.I && p.R === 0 && p.V && p.V.max > p.Vf.min)
      .map((p): Finding => ({
        rule: "led.no-resistor",
        severity: "stop",
        at: [p.ref, ...pathPins(p).map((e) => `${e.ref}.${e.pin}`)],
        message: `${label(c, p.ref)} has no series resistor: ${p.V!.typ.toFixed(1)} V drives a ${p.Vf.typ.toFixed(1)} V light with nothing to limit the current.`,
        evidence: { supply_V: round(p.V!.typ), Vf_V: round(p.Vf.typ), R_ohm: 0 },
        fixes: resistorFix(c, p.ref),
      })),
};

const pinCurrent: Rule = {
  rule: "current.pin",
  says: "A pin has a current that is good for it and one that may never be passed.",
  check: (c) => {
    const sums = new Map<string, { ref: string; pin: string; I: number; paths: LedPath[] }>();
    for (const p of c.leds) {
      if (!p.I || p.R === 0) continue;
      for (const e of pathPins(p)) {
        const key = `${e.ref}.${e.pin}`;
        const sum = sums.get(key) ?? { ref: e.ref, pin: e.pin, I: 0, paths: [] };
        sums.set(key, { ...sum, I: sum.I + p.I.max, paths: [...sum.paths, p] });
      }
    }
    const out = [...sums].flatMap(([key, s]): Finding[] => {
      const limits = c.netlist.level(s.ref, s.pin)?.pin_mA;
      if (!limits || s.I * 1000 <= limits.recommended) return [];
      const stop = s.I * 1000 > limits.absMax;
      return [
        {
          rule: "current.pin",
          severity: stop ? "stop" : "risk",
          at: [key, ...s.paths.map((p) => p.ref)],
          message: `${key} may have to carry ${mA(s.I)}; ${stop ? `its absolute maximum is ${limits.absMax} mA. Do not power this.` : `${limits.recommended} mA is recommended (absolute maximum ${limits.absMax} mA).`}`,
          evidence: { worst_mA: round(s.I * 1000, 1), recommended_mA: limits.recommended, absMax_mA: limits.absMax },
          fixes: s.paths
            .flatMap((p) => [...resistorFix(c, p.ref), ...lessCurrent(c, p, limits.recommended)])
            .slice(0, 2),
        },
      ];
    });
    const leds = c.leds.flatMap((p): Finding[] =>
      p.I && p.R > 0 && p.I.max > p.max_A * 1.001
        ? [
            {
              rule: "current.led",
              severity: p.I.max > p.max_A * 1.5 ? "stop" : "risk",
              at: [p.ref],
              message: `${label(c, p.ref)} may get ${mA(p.I.max)}; it takes ${mA(p.max_A)} at most.`,
              evidence: { worst_mA: round(p.I.max * 1000, 1), max_mA: round(p.max_A * 1000, 1), R_ohm: p.R },
              fixes: resistorFix(c, p.ref),
            },
          ]
        : [],
    );
    return [...out, ...leds];
  },
};

/** When the light is meant to be too bright for the pin: a larger resistor that keeps the worst case inside. */
function lessCurrent(c: Circuit, p: LedPath, limit_mA: number): Fix[] {
  const entry = c.project.parts.find((x) => x.ref === owner(c, p.ref));
  const now = c.netlist.instance(p.ref)?.vars.current_mA;
  if (!entry || now === undefined || p.V === null) return [];
  const wanted = Math.max(0.5, Math.floor(limit_mA * 0.7 * 2) / 2);
  if (wanted >= now) return [];
  const { seriesResistor: _old, ...others } = entry.companions ?? {};
  const next = { ...entry, options: { ...entry.options, current_mA: wanted }, companions: others };
  const value = recommendedCompanions(c.project, next, c.catalogue, c.netlist.instance(entry.ref)?.host).seriesResistor;
  if (!value) return [];
  return [
    {
      id: "less-current",
      label: `Run ${label(c, entry.ref)} at ${wanted} mA`,
      edits: [
        { type: "setOption", ref: entry.ref, key: "current_mA", value: wanted },
        { type: "setCompanion", ref: entry.ref, key: "seriesResistor", value },
      ],
    },
  ];
}

export const currentRules: Rule[] = [noResistor, pinCurrent];
