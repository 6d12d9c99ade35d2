import { sourcesOn } from "../../circuit/power";
import type { Circuit } from "../../circuit";
import { pinWords } from "../../build";

export interface Question {
  ask: string;
  answer: string;
}

const mA = (a: number) => `${(a * 1000).toFixed(a < 0.02 ? 1 : 0)} mA`;

function lights(c: Circuit): Question[] {
  const seen = new Set<string>();
  return c.leds.flatMap((l): Question[] => {
    if (!l.I || l.R <= 0 || seen.has(l.ref)) return [];
    seen.add(l.ref);
    const name = c.netlist.instance(l.ref)?.label ?? l.ref;
    return [
      {
        ask: `A resistor of ${Math.round(l.R)} ohm stands before ${name}. What would happen to the light and to the pin without it?`,
        answer: `The resistor lets about ${mA(l.I.typ)} through. Without it nothing limits the current: the light and the pin can burn.`,
      },
    ];
  });
}

function buses(c: Circuit): Question[] {
  const on = [...c.netlist.expanded.instances.values()].flatMap((i) =>
    i.part.groups.flatMap((g) => (g.kind === "i2c" && g.address && !i.part.board ? [{ i, address: g.address }] : [])),
  );
  if (!on.length) return [];
  return [
    {
      ask:
        on.length > 1
          ? `${on.map((x) => x.i.label).join(" and ")} hang on the same two lines. How does the board talk to one of them only?`
          : `${on[0]!.i.label} has a number of its own. What does the board do with it?`,
      answer: `Each has an address: ${on.map((x) => `${x.i.label} ${x.address}`).join(", ")}. The board says the address first, and only that part answers.`,
    },
  ];
}

function places(c: Circuit): Question[] {
  return c.netlist.bindings
    .filter((b) => b.direct)
    .slice(0, 3)
    .map((b) => {
      const [part, host] = [c.netlist.instance(b.ref)!, c.netlist.instance(b.host)!];
      return {
        ask: `Where on the board is the pin that ${part.label} uses for ${b.pin}? Count it off before you look at its print.`,
        answer: `${b.hostPin}: ${pinWords(host, b.hostPin)}.`,
      };
    });
}

function supply(c: Circuit): Question[] {
  const out: Question[] = [
    {
      ask: "Which two points must never beep together before the power goes on, and why?",
      answer: "Supply and ground. If they beep they are joined: wires or the supply would burn.",
    },
  ];
  for (const l of c.power.limits.filter((x) => x.kind === "source" && x.flow.peak > 0).slice(0, 1)) {
    const name = c.netlist.instance(l.ref)?.label ?? l.ref;
    out.push({
      ask: `All parts on ${name} together may draw up to ${mA(l.flow.peak)}. Is it enough, if it gives ${mA(l.limit_A)} at most?`,
      answer:
        l.flow.peak <= l.limit_A
          ? `Yes: ${mA(l.limit_A - l.flow.peak)} are left.`
          : `No: ${mA(l.flow.peak - l.limit_A)} are missing. Read the findings of the plan.`,
    });
  }
  const fed = c.netlist.nets.filter((n) => n.kind === "supply" && sourcesOn(c.netlist, n).length > 0);
  if (fed.length > 1)
    out.push({
      ask: `Here are ${fed.length} supplies. What do they still have to share, so that signals mean the same to both?`,
      answer: "Ground, unless the plan keeps them isolated on purpose.",
    });
  return out;
}

/** Questions about this very plan, with answers that are computed from it. */
export const questionsFor = (c: Circuit): Question[] => [...places(c), ...lights(c), ...buses(c), ...supply(c)];
