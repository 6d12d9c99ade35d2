import { inC, inPython, unfitLink, type Over } from "../links";
import { unfitDimmed } from "../dimmed";
import { STEADY_MS, type Driver, type DriverPart, type Proof } from "../types";
import { bringupInPython, PART_LIB, showInPython, standsInPython, stepsInPython, watchInPython } from "./python";
import { bringupInC, showInC, SKETCH_HELPERS, standsInC, turnInC, watchInC } from "./sketch";
import { draws, FONT_LIB, TEXT_LIB } from "./text";
import type { Device, DeviceKind } from "./types";

const both = (...list: (string | undefined)[]) => list.filter(Boolean).join("\n");

function proofOf(d: Device, p: DriverPart): Proof {
  const proof = d.proof;
  if (!proof) return { kind: "test" };
  if (proof.kind === "unproven") return proof;
  if (proof.kind === "seen")
    return { kind: "seen", question: proof.question, ...(proof.careful && { careful: proof.careful }) };
  const ins = d.over?.kind === "pins" ? (d.over.in ?? []) : [];
  // An input that something always holds does not wander.
  const held = proof.steady ?? ins.every((l) => p.pulled.has(l));
  return { kind: "watch", act: proof.act, by: proof.by, steady_ms: held ? 0 : STEADY_MS };
}

/** A device as the programs are put together from it; `plain` does what its pins beside the link need, and asks who it is. */
export function deviceDriver(kind: DeviceKind, plain: Driver): Driver {
  const made = new WeakMap<DriverPart, Device>();
  const of = (p: DriverPart): Device => {
    let d = made.get(p);
    if (!d) made.set(p, (d = kind.of(p)));
    return d;
  };
  const over = (d: Device): Over => d.over ?? { kind: "i2c" };
  return {
    id: kind.id,
    order: 20,
    unfit: (p) => {
      const dimmed = unfitDimmed(p);
      if (dimmed) return dimmed;
      const why = unfitLink(over(of(p)), p);
      return why === null ? null : { kind: "capability", why };
    },
    proof: (p) => proofOf(of(p), p),
    takes: (p) => {
      const { takes, proof } = of(p);
      // What hangs on its lines is told, not the lines.
      return takes && !p.outs ? { on: proof?.kind === "seen" ? proof.show[0]! : takes.range[1], ...takes } : null;
    },
    gives: (p) => of(p).out,
    text: (p) => of(p).text ?? null,
    logs: (p) => of(p).logs ?? false,
    rules: {
      sketch: {
        value: (p, q) => `${p.id}_${q.name}`,
        fresh: (p) => `${p.id}_fresh`,
        tell: (p, v) => `${p.id}_want = ${v};`,
      },
      micropython: {
        value: (p, q) => `${p.id}.${q.name}`,
        fresh: (p) => `${p.id}.fresh`,
        tell: (p, v) => `${p.id}.want = ${v}`,
      },
    },
    sketch: {
      helpers: SKETCH_HELPERS,
      helpersFor: (p) => {
        const link = inC(over(of(p)));
        return [
          ...(link.stands ?? []),
          ...(link.standsFor?.(p) ?? []),
          ...standsInC(of(p)),
          link.helpers,
          ...(link.moreFor?.(p) ?? []),
        ];
      },
      globals: (p) => turnInC(of(p), p),
      setup: (p) => both(plain.sketch?.setup?.(p), inC(over(of(p))).setup?.(p)),
      bringup: (p) =>
        both(
          // Behind a bus switch its own answers say that it is there.
          over(of(p)).kind === "i2c" && !p.via ? plain.sketch?.bringup?.(p) : "",
          // That it answers to its address is no proof of what it shows or moves.
          of(p).proof && over(of(p)).kind === "i2c" ? "if (known[turn] == 1) known[turn] = 0;" : "",
          bringupInC(of(p), p),
          inC(over(of(p))).tells?.(p),
        ),
      watch: (p) => (of(p).proof?.kind === "watch" ? watchInC(of(p), p) : ""),
      task: (p) => ({ turn: `${p.id}_turn()` }),
      show: (p) => (of(p).out.length && p.outs === undefined ? showInC(of(p), p) : ""),
    },
    micropython: {
      lib: { path: "lib/part.py", text: PART_LIB },
      imports: ["from lib.part import *"],
      libsFor: (p) => [
        ...[inPython(over(of(p))).lib ?? []].flat(),
        ...(of(p).text ? [{ path: "lib/text.py", text: TEXT_LIB }] : []),
        ...(draws(of(p)) ? [{ path: "lib/font.py", text: FONT_LIB }] : []),
      ],
      importsFor: (p) => [
        ...standsInPython(of(p)),
        ...(plain.micropython?.importsFor?.(p) ?? []),
        ...(inPython(over(of(p))).imports?.(p) ?? []),
      ],
      setup: (p) => both(plain.micropython?.pins?.(p), inPython(over(of(p))).setup?.(p), stepsInPython(of(p), p)),
      bringup: (p) =>
        both(
          over(of(p)).kind === "i2c" ? plain.micropython?.bringup?.(p) : "",
          of(p).proof && over(of(p)).kind === "i2c" ? "if known[turn[0]] == 1:\n    known[turn[0]] = 0" : "",
          bringupInPython(of(p), p),
          inPython(over(of(p))).tells?.(p),
        ),
      watch: (p) => (of(p).proof?.kind === "watch" ? watchInPython(of(p), p) : ""),
      task: (p) => ({ turn: `${p.id}.turn()` }),
      show: (p) => (of(p).out.length && p.outs === undefined ? showInPython(of(p), p) : ""),
    },
  };
}
