import { effectiveNeed, followers, hostFacts, problemOf, sharedClashes, shareKey, waysToServe } from "../assign";
import { findPin, isBusKind, type Pin } from "../catalogue";
import type { Circuit } from "../circuit";
import type { Binding } from "../netlist";
import { splitEnd } from "../project";
import { label, moveFix } from "./help";
import type { Finding, Rule, Severity } from "./types";

const hostPin = (c: Circuit, b: Binding): Pin | undefined => findPin(c.netlist.instance(b.host)!.part, b.hostPin);
const place = (b: Binding) => [`${b.ref}.${b.pin}`, `${b.host}.${b.hostPin}`];
const needOf = (c: Circuit, b: Binding) =>
  effectiveNeed(c.netlist, b.ref, findPin(c.netlist.instance(b.ref)!.part, b.pin)!);

/** What is to be known of the host for a binding: its radio, and whether the program may do this bus. */
const factsOf = (c: Circuit, b: Binding) => {
  const groups = c.netlist.instance(b.ref)!.part.groups;
  const group = groups.find((g) => g.kind === b.need.kind && Object.values(g.pins).includes(b.pin));
  return hostFacts(c.project, c.netlist, b.host, b.ref, group?.id);
};

/** A converter that can't be used while the radio runs. */
const muted = (c: Circuit, b: Binding) =>
  b.need.kind === "adc" &&
  factsOf(c, b).radio === true &&
  (hostPin(c, b)?.hazards?.some((h) => h.kind === "adc-radio") ?? false);

const barred = (c: Circuit, b: Binding) =>
  hostPin(c, b)?.hazards?.some((h) => h.kind === "reserved" || h.kind === "reset") ?? false;

const capability: Rule = {
  rule: "pin.capability",
  says: "A pin can only do what its chip wired it for.",
  check: (c) => {
    const out: Finding[] = [];
    for (const b of c.netlist.bindings) {
      const pin = hostPin(c, b);
      if (!pin || barred(c, b) || muted(c, b)) continue;
      const need = needOf(c, b);
      const ways = waysToServe(pin, need, factsOf(c, b));
      const bad = ways.every((w) => !w.ok) ? ways[0] : undefined;
      if (bad && !bad.ok)
        out.push({
          rule: "pin.capability",
          severity: "fault",
          at: place(b),
          message: `${b.ref}.${b.pin} (${label(c, b.ref)}) is wired to ${b.host}.${b.hostPin}, but ${bad.why}.`,
          evidence: { wants: need.role ? `${need.kind} ${need.role}` : need.kind, pin: b.hostPin },
          fixes: moveFix(c, b.ref, b.pin, b.host, need),
        });
    }
    // Clock and data of one part must belong to one controller.
    for (const inst of c.netlist.expanded.instances.values())
      for (const g of inst.part.groups) {
        if (!isBusKind(g.kind)) continue;
        const members = c.netlist.bindings.filter((b) => b.ref === inst.ref && Object.values(g.pins).includes(b.pin));
        const buses = members.map((b) =>
          waysToServe(hostPin(c, b)!, b.need, factsOf(c, b)).flatMap((w) => (w.ok && w.bus ? [w.bus] : [])),
        );
        if (buses.length < 2 || buses.some((x) => !x.length)) continue;
        const common = buses.reduce((a, x) => a.filter((y) => x.includes(y)));
        if (!common.length)
          out.push({
            rule: "pin.capability",
            severity: "fault",
            at: members.flatMap((b) => [`${b.ref}.${b.pin}`, `${b.host}.${b.hostPin}`]),
            message: `${label(c, inst.ref)}'s lines go to different controllers: ${members.map((b, i) => `${b.pin} on ${buses[i]!.join("/")}`).join(", ")}. They must belong to one.`,
            evidence: Object.fromEntries(members.map((b, i) => [b.pin, buses[i]!.join("/")])),
            fixes: [],
          });
      }
    return out;
  },
};

/** Uses of one pin that belong together: the pieces of a chain, one-wire sensors, inputs wired to one another on purpose. */
function goTogether(c: Circuit, list: Binding[]): boolean {
  const own = list.filter((b) => !b.chainedAfter);
  if (own.length < 2 || own.every((b) => b.need.role === "onewire")) return true;
  const led = followers(c.project, c.netlist, own[0]!.host);
  return own.filter((b) => !led.has(`${b.ref}.${b.pin}`)).length < 2;
}

const duplicate: Rule = {
  rule: "pin.duplicate",
  says: "Two needs can't share one pin unless they are lines of a bus.",
  check: (c) => {
    const byPin = new Map<string, Binding[]>();
    for (const b of c.netlist.bindings) {
      const k = `${b.host}.${b.hostPin}`;
      byPin.set(k, [...(byPin.get(k) ?? []), b]);
    }
    return [...byPin].flatMap(([pin, list]): Finding[] => {
      const keys = new Set(list.map((b) => shareKey(b.need)));
      if (goTogether(c, list)) return [];
      if (list.length < 2 || (keys.size === 1 && !keys.has(null))) return [];
      const drives = list.filter((b) => findPin(c.netlist.instance(b.ref)!.part, b.pin)?.io === "out").length;
      const severity: Severity =
        drives > 1 || (drives === 1 && list.some((b) => b.need.kind.endsWith("out"))) ? "stop" : "fault";
      const last = list[list.length - 1]!;
      return [
        {
          rule: "pin.duplicate",
          severity,
          at: [pin, ...list.map((b) => `${b.ref}.${b.pin}`)],
          message: `${pin} is used by ${list.map((b) => `${b.ref}.${b.pin}`).join(" and ")}, which can't share a pin${severity === "stop" ? ": two outputs would fight" : ""}.`,
          evidence: { uses: list.length, outputs: drives },
          fixes: moveFix(c, last.ref, last.pin, last.host, needOf(c, last)),
        },
      ];
    });
  },
};

/** Hazards of a pin that its user should know, by kind: the rule that speaks for each. */
const HAZARD_RULES: [kind: string, rule: string, severity: Severity, says: string][] = [
  [
    "console",
    "pin.usb-serial",
    "risk",
    "Pins of the upload and console port carry its traffic: parts on them disturb uploading.",
  ],
  ["reserved", "pin.reserved", "stop", "Some pins are taken by the board itself."],
  ["reset", "pin.reset", "stop", "The reset pin restarts the chip and can't be used as an input or output."],
  ["onboard", "pin.onboard", "note", "Some pins already carry a part on the board."],
  ["strapping", "pin.strapping", "risk", "Some pins decide at reset how the chip starts."],
  ["bootlog", "pin.bootlog", "risk", "Some pins print text while the chip starts."],
];

const WHAT_TO_DO: Record<string, string> = {
  console: "Take that wire off while uploading, or move it.",
  reserved: "Use another pin.",
  reset: "Use another pin.",
  onboard: "Expect it to act along.",
};

const hazardRule = ([kind, rule, severity, says]: (typeof HAZARD_RULES)[number]): Rule => ({
  rule,
  says,
  check: (c) =>
    c.netlist.bindings.flatMap((b): Finding[] => {
      const h = hostPin(c, b)?.hazards?.find((x) => x.kind === kind);
      if (!h) return [];
      return [
        {
          rule,
          severity,
          at: place(b),
          message: `${b.ref}.${b.pin} is on ${b.host}.${b.hostPin}: ${h.says}. ${WHAT_TO_DO[kind] ?? ""}`.trim(),
          evidence: { pin: b.hostPin },
          fixes: moveFix(c, b.ref, b.pin, b.host, needOf(c, b)),
        },
      ];
    }),
});

/** Why two uses of a timer or a line exclude each other, and how much it matters. */
const SHARED: { rule: string; severity: Severity; says: string; of: (kind: string) => boolean; what: string }[] = [
  {
    rule: "pin.timer-conflict",
    severity: "risk",
    says: "Pins that get their pulses from one timer run at one rate; a servo, a note and a dimmed light want different ones.",
    of: (kind) => kind === "pwm",
    what: "The later one started wins",
  },
  {
    rule: "pin.interrupts",
    severity: "fault",
    says: "A chip watches a limited number of edges at once: pins that share a line can't both be watched.",
    of: (kind) => kind === "interrupt",
    what: "Only one of them will be noticed",
  },
];

const sharedRule = ({ rule, severity, says, of, what }: (typeof SHARED)[number]): Rule => ({
  rule,
  says,
  check: (c) =>
    c.netlist.expanded.hosts.flatMap((host) =>
      sharedClashes(problemOf(c, host))
        .filter((x) => of(x.a.need.kind) && of(x.b.need.kind))
        .map((x): Finding => {
          const rates = x.slot === null ? ` (${x.a.id} ${x.modes[0]}, ${x.b.id} ${x.modes[1]})` : ` (${x.slot})`;
          return {
            rule,
            severity,
            at: [x.a.id, x.b.id],
            message: `${x.a.id} and ${x.b.id} both hang on ${x.says}${rates}. ${what}; move one of them.`,
            evidence: { shared: x.says, first: x.modes[0], second: x.modes[1] },
            fixes: moveFix(c, x.b.ref, splitEnd(x.b.id).pin, splitEnd(x.b.present!).ref, x.b.need),
          };
        }),
    ),
});

const adcRadio: Rule = {
  rule: "pin.adc-radio",
  says: "Some converters belong to the radio while it runs.",
  check: (c) =>
    c.netlist.bindings
      .filter((b) => muted(c, b))
      .map((b): Finding => ({
        rule: "pin.adc-radio",
        severity: "fault",
        at: place(b),
        message: `${b.ref}.${b.pin} is measured at ${b.host}.${b.hostPin}, whose converter can't be used while the radio runs, and this project uses the radio.`,
        evidence: { pin: b.hostPin },
        fixes: moveFix(c, b.ref, b.pin, b.host, needOf(c, b)),
      })),
};

/** What the program is to the computer at the other end needs a chip that speaks USB itself. */
const nativeUsb: Rule = {
  rule: "board.native-usb",
  says: "A keyboard, a MIDI instrument or a game controller needs a chip with USB of its own, not a serial bridge.",
  check: (c) =>
    c.netlist.expanded.hosts.flatMap((host): Finding[] => {
      const board = c.netlist.instance(host)!.part.board!;
      const role = c.project.parts.find((p) => p.ref === host)?.options?.usbRole;
      if (!role || role === "serial" || board.usb.kind === "native") return [];
      return [
        {
          rule: "board.native-usb",
          severity: "fault",
          at: [host],
          message: `${label(c, host)} is meant to be a ${String(role)} to the computer, but its ${board.chip} ${board.usb.kind === "bridge" ? "only has a serial bridge" : "has no USB"}. Choose a board with native USB.`,
          evidence: { usb: board.usb.kind, role: String(role) },
          fixes: [],
        },
      ];
    }),
};

export const pinRules: Rule[] = [
  nativeUsb,
  capability,
  duplicate,
  adcRadio,
  ...SHARED.map(sharedRule),
  ...HAZARD_RULES.map(hazardRule),
];
