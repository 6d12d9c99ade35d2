import type { Circuit } from "../../circuit";
import { canDim } from "../../circuit/netlist";
import { refsOf, type Rule } from "../../project";
import { TARGETS } from "..";
import { driverOf, leftOut } from "../drivers";
import { driverParts } from "../pins";
import type { DriverPart } from "../types";
import { usbHostOf, type UsbHost } from "../usb/host";
import { BRIGHTNESS } from "../dimmed";
import { namesOf, ruled } from ".";
import { clockOf, givesOf, outName, resolve, takesOf } from "./resolve";
import { isYesNo, sentence } from "./sentence";

/** Something that a rule can go by. */
export interface RuleInput {
  ref: string;
  label: string;
  out: string;
  /** What it is called: `light`, `pressed`. */
  word: string;
  unit: string;
  yesNo: boolean;
  /** The time of day of a clock part. */
  clock?: true;
  /** What can be true in a room, in the unit that people read. */
  room: [number, number];
}
/** Something that a rule can tell what to do. */
export interface RuleOutput {
  ref: string;
  label: string;
  word: string;
  unit: string;
  range: [number, number];
  /** On and off are all there is, or all that is usual. */
  onOff: boolean;
  /** It can be made weaker by pulses as well: it may follow something, or be set to so much. */
  dims?: true;
  /** A memory card: it gets lines, and nothing else. */
  logs?: true;
  /** The computer, and what the board is to it. */
  sends?: string;
}
export interface RulesView {
  rules: { rule: Rule; says: string; why: string | null }[];
  /** Nobody has written any: these are suggested from the parts. */
  suggested: boolean;
  inputs: RuleInput[];
  outputs: RuleOutput[];
}

/** The targets whose programs follow rules. */
const FOLLOWS = new Set(["sketch", "micropython", "python", "avr-c"]);
/** Plain C does something of its own until there are rules. */
const SUGGESTS = (target: string) => target !== "avr-c";

/** A board whose program follows rules: the parts that it works, and why it does not work the others. */
interface Followed {
  target: string;
  parts: DriverPart[];
  lacks: ReadonlyMap<string, string>;
  usb: UsbHost;
}

/** The parts of each board as its first program that follows rules has them. */
function boards(c: Circuit): Followed[] {
  return c.netlist.expanded.hosts.flatMap((host) => {
    const t = TARGETS.find((x) => FOLLOWS.has(x.id) && !x.without(c).some((w) => w.host === host));
    if (!t) return [];
    const all = driverParts(c, host, t.id, (b) => b).map((p) => ({ p, lack: leftOut(p) ?? t.leaves?.(p) ?? null }));
    return [
      {
        target: t.id,
        parts: all.flatMap(({ p, lack }) => (lack ? [] : [p])),
        lacks: new Map(all.flatMap(({ p, lack }) => (lack ? [[p.ref, lack.why] as const] : []))),
        usb: usbHostOf(c, host, t.id),
      },
    ];
  });
}

/** The computer as something that a rule can tell something, where the board is more than a serial port to it. */
const computer = (c: Circuit, usb: UsbHost): RuleOutput[] =>
  usb.role === "serial"
    ? []
    : [
        {
          ref: usb.ref,
          label: `the computer, by ${c.netlist.instance(usb.ref)!.label}`,
          word: usb.role,
          unit: "",
          range: [0, 127],
          onOff: true,
          sends: usb.role,
        },
      ];

/** What the project's programs do when, and of what rules can be made. */
export function rulesView(c: Circuit): RulesView {
  const all = boards(c);
  const everything = all.flatMap((b) => b.parts);
  const names = {
    ...namesOf(everything, (p) => p.inst.label),
    // A part that no program works has its name all the same.
    label: (ref: string) => c.netlist.instance(ref)?.label ?? ref,
  };
  const list =
    c.project.rules ??
    all.flatMap((b) => (SUGGESTS(b.target) ? ruled(c.project, b.parts, b.usb).rules.map((r) => r.rule) : []));
  const scale = (digits: number, v: number) => v / 10 ** digits;
  return {
    suggested: c.project.rules === undefined,
    rules: list.map((rule) => {
      const says = sentence(rule, names);
      const tries = all.map((b) => resolve(rule, b.parts, says, b.usb));
      const done = tries.some((t) => typeof t !== "string");
      // On the board of what it tells something, that board's reason counts.
      const home = all.findIndex((b) => b.usb.ref === rule.do.ref || b.parts.some((p) => p.ref === rule.do.ref));
      const why = tries[home] ?? tries[0] ?? "no board here has a program that follows rules";
      const lack = refsOf(rule).flatMap((ref) => all.flatMap((b) => b.lacks.get(ref) ?? []))[0];
      return { rule, says, why: done || typeof why !== "string" ? null : (lack ?? why) };
    }),
    inputs: everything.flatMap((p): RuleInput[] => [
      ...(clockOf(p)
        ? [
            {
              ref: p.ref,
              label: p.inst.label,
              out: "time",
              word: "time of day",
              unit: "",
              yesNo: false,
              clock: true as const,
              room: [0, 24] as [number, number],
            },
          ]
        : []),
      ...givesOf(p).map((q) => ({
        ref: p.ref,
        label: p.inst.label,
        out: outName(q),
        word: q.word || outName(q),
        unit: q.unit,
        yesNo: isYesNo(q),
        room: [scale(q.digits, q.room[0]), scale(q.digits, q.room[1])] as [number, number],
      })),
    ]),
    outputs: [
      ...all.flatMap(({ usb }) => computer(c, usb)),
      ...everything.flatMap((p): RuleOutput[] => {
        if (driverOf(p)?.logs?.(p))
          return [{ ref: p.ref, label: p.inst.label, word: "line", unit: "", range: [0, 1], onOff: true, logs: true }];
        const dims = canDim(p.inst.part) && !p.inst.inserted;
        const t = dims && takesOf(p) ? BRIGHTNESS : takesOf(p);
        return t
          ? [
              {
                ref: p.ref,
                label: p.inst.label,
                word: t.word,
                unit: t.unit,
                range: [scale(t.digits, t.range[0]), scale(t.digits, t.range[1])] as [number, number],
                onOff: dims || (t.range[0] === 0 && t.range[1] === 1),
                ...(dims && { dims: true as const }),
              },
            ]
          : [];
      }),
    ],
  };
}
