import {
  effectiveNeed,
  followers,
  hostFacts,
  sharedClashes,
  standingProblem,
  shareKey,
  waysToServe,
} from "../plan/assign";
import { findPin, isBusKind, type Pin } from "../parts/catalogue";
import type { Circuit } from "../circuit";
import type { Binding, NetElement } from "../circuit/netlist";
import { restOf } from "../circuit/solve";
import { splitEnd } from "../project";
import { seriesOhm } from "./graph";
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

/** A serial line on the pin of the other direction: `uart.not-crossed` speaks for it. */
const uncrossed = (c: Circuit, b: Binding) =>
  b.need.kind === "uart" &&
  (hostPin(c, b)?.offers?.some((o) => o.kind === "uart" && o.role !== b.need.role && /^[rt]x$/.test(o.role)) ??
    false) &&
  !hostPin(c, b)?.offers?.some((o) => o.kind === "uart" && o.role === b.need.role);

const capability: Rule = {
  rule: "pin.capability",
  says: "A pin can only do what its chip wired it for.",
  check: (c) => {
    const out: Finding[] = [];
    for (const b of c.netlist.bindings) {
      const pin = hostPin(c, b);
      if (!pin || barred(c, b) || muted(c, b) || uncrossed(c, b)) continue;
      const need = needOf(c, b);
      const ways = waysToServe(pin, need, factsOf(c, b));
      const bad = ways.every((w) => !w.ok) ? ways[0] : undefined;
      if (bad && !bad.ok)
        out.push({
          rule: "pin.capability",
          severity: "fault",
          at: place(b),
          message: `${b.ref}.${b.pin} (${label(c, b.ref)}) is planned on ${b.host}.${b.hostPin}, but ${bad.why}.`,
          evidence: { wants: need.role ? `${need.kind} ${need.role}` : need.kind, pin: b.hostPin },
          fixes: moveFix(c, b.ref, b.pin, b.host, need),
        });
    }
    // Clock and data of one part must belong to one controller.
    for (const inst of c.netlist.expanded.instances.values())
      for (const g of inst.part.groups) {
        if (!isBusKind(g.kind)) continue;
        const members = c.netlist.bindings.filter((b) => b.ref === inst.ref && Object.values(g.pins).includes(b.pin));
        if (members.some((b) => uncrossed(c, b))) continue;
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

/** Shared selects and shared serial ports have rules of their own. */
const spokenFor = (c: Circuit, list: Binding[]) =>
  list.every((b) => b.need.kind === "uart" && b.need.role === "tx") ||
  list.every((b) =>
    c.netlist
      .instance(b.ref)!
      .part.groups.some((g) => g.kind === "spi" && g.pins.cs === b.pin && b.need.kind !== "uart"),
  );

/** Contacts side by side, or in a grid that is scanned, share an input by intent: any of them closes it. */
const contactsOnly = (c: Circuit, list: Binding[]) =>
  list.every((b) => {
    const part = c.netlist.instance(b.ref)!.part;
    return b.need.kind === "digital-in" && part.pins.length === 2 && part.elements.every((e) => e.kind === "contact");
  });

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
      if (goTogether(c, list) || spokenFor(c, list) || contactsOnly(c, list)) return [];
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

const standingMemo = new WeakMap<Circuit["netlist"], Map<string, ReturnType<typeof standingProblem>>>();
const standing = (c: Circuit, host: string) => {
  const mine = standingMemo.get(c.netlist) ?? new Map<string, ReturnType<typeof standingProblem>>();
  standingMemo.set(c.netlist, mine);
  const there = mine.get(host) ?? standingProblem(c, host);
  mine.set(host, there);
  return there;
};

const sharedRule = ({ rule, severity, says, of, what }: (typeof SHARED)[number]): Rule => ({
  rule,
  says,
  check: (c) =>
    c.netlist.expanded.hosts.flatMap((host) => {
      const asks = c.netlist.bindings.filter((b) => b.host === host && of(needOf(c, b).kind));
      if (asks.length < 2) return [];
      return sharedClashes(standing(c, host))
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
        });
    }),
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

/** The chip's own pull at a strapping pin, where its data does not say another, ohms. */
const STRAP_OHM = 45_000;

/** The pull that a chip has at a pin whose level at reset it wants, as an element. */
function strapPull(c: Circuit, b: Binding, want: "high" | "low"): NetElement | undefined {
  const level = c.netlist.level(b.host, b.hostPin);
  const host = c.netlist.instance(b.host)!.part;
  const ground = host.pins.find((p) => p.role === "ground");
  const to = want === "high" ? level && `${b.host}:${level.supply}` : ground && `${b.host}.${ground.label}`;
  const net = c.netlist.netOf(`${b.host}.${b.hostPin}`);
  if (!to) return undefined;
  const ohm = Number(level?.pullUp_ohm?.max ?? STRAP_OHM);
  return { ref: b.host, kind: "resistor", a: net.id, b: c.netlist.netOf(to).id, ohm, tolerance: 0, internal: true };
}

/** What a pin sees while the chip starts: a pull one way, a driver that nobody can foresee, or nothing. */
function seenAtReset(
  c: Circuit,
  b: Binding,
  want: "high" | "low" | undefined,
): "high" | "low" | "between" | "driven" | "open" {
  const net = c.netlist.netOf(`${b.host}.${b.hostPin}`);
  if (net.ends.some((e) => e.ref !== b.host && e.as === "driver" && !e.def.offers)) return "driven";
  const alone = restOf(c.solved, net.id);
  const pull = want && strapPull(c, b, want);
  // Against the chip's own pull: a light to ground drags a weak high down though it holds nothing by itself.
  const rest = pull ? restOf(c.solved, net.id, { pull }) : alone;
  if (!rest || (!alone && rest.side === want)) return "open";
  return rest.side;
}

const strapping: Rule = {
  rule: "pin.strapping",
  says: "Some pins decide at reset how the chip starts: what hangs on them must leave them at the right level.",
  check: (c) =>
    c.netlist.bindings.flatMap((b): Finding[] => {
      const h = hostPin(c, b)?.hazards?.find((x) => x.kind === "strapping");
      if (!h) return [];
      const sees = seenAtReset(c, b, h.want);
      const wrong = h.want !== undefined && ["high", "low", "between"].includes(sees) && sees !== h.want;
      const severity: Severity = wrong ? "fault" : sees === "driven" ? "risk" : "note";
      const SAYS = {
        high: "is pulled high there",
        low: "is pulled low there",
        between: "is held between high and low there",
        driven: "is driven by the part",
        open: "is left open by the part",
      };
      return [
        {
          rule: "pin.strapping",
          severity,
          at: place(b),
          message: `${b.ref}.${b.pin} is on ${b.host}.${b.hostPin}, which ${h.says}; it ${SAYS[sees]}${wrong ? ", so the chip does not start as it should" : sees === "driven" ? ", at a level that can't be known while starting" : ""}.`,
          evidence: { pin: b.hostPin, sees, ...(h.want && { wants: h.want }) },
          fixes: severity === "note" ? [] : moveFix(c, b.ref, b.pin, b.host, needOf(c, b)),
        },
      ];
    }),
};

/** What a programmer can't overcome: an output straight on its line, or a load of more than this. */
const PROGRAM_MA = 10;

const ispShared: Rule = {
  rule: "pin.isp-shared",
  says: "The programmer's lines must be free while it works: what else hangs on them needs a resistor or must let go.",
  check: (c) =>
    c.netlist.bindings.flatMap((b): Finding[] => {
      const host = c.netlist.instance(b.host)!.part;
      const h = hostPin(c, b)?.hazards?.find((x) => x.kind === "programming");
      if (!h || !host.board) return [];
      const finding = (severity: Severity, why: string, fixes: Finding["fixes"]): Finding => ({
        rule: "pin.isp-shared",
        severity,
        at: place(b),
        message: `${b.ref}.${b.pin} is on ${b.host}.${b.hostPin}, which ${h.says}. ${why}`,
        evidence: { pin: b.hostPin },
        fixes,
      });
      const isp = host.id.startsWith("chip/") && /programmer/.test(h.says);
      if (!isp)
        return host.id.startsWith("chip/")
          ? [finding("risk", "Use another pin, or clear the fuse.", moveFix(c, b.ref, b.pin, b.host, needOf(c, b)))]
          : [];
      const inst = c.netlist.instance(b.ref)!;
      const spi = inst.part.groups.find((g) => g.kind === "spi" && Object.values(g.pins).includes(b.pin));
      if (spi?.pins.cs) {
        const held = restOf(c.solved, c.netlist.netOf(`${b.ref}.${spi.pins.cs}`).id)?.side === "high";
        return held || b.pin !== spi.pins.miso
          ? []
          : [
              finding("risk", "While the programmer works, its select floats and it may answer.", [
                {
                  id: "hold-select",
                  label: `Add 10 kΩ from ${b.ref}.${spi.pins.cs} to the logic supply`,
                  edits: [
                    { type: "setCompanion", ref: b.ref, key: "pullUp", value: { ohm: 10_000, pin: spi.pins.cs } },
                  ],
                },
              ]),
            ];
      }
      const out = c.netlist.level(b.ref, b.pin)?.output === "push-pull" && findPin(inst.part, b.pin)?.io === "out";
      const series =
        seriesOhm(c, c.netlist.netOf(`${b.ref}.${b.pin}`).id, c.netlist.netOf(`${b.host}.${b.hostPin}`).id) ?? 0;
      if (out && series < 900)
        return [
          finding("risk", "It drives the line against the programmer: uploading fails.", [
            {
              id: "series-resistor",
              label: `Put 1 kΩ in the wire to ${b.ref}.${b.pin}`,
              edits: [{ type: "setCompanion", ref: b.ref, key: "seriesResistor", value: { ohm: 1000, pin: b.pin } }],
            },
          ]),
        ];
      const led = c.leds.find((p) =>
        [p.high, p.low].some((e) => e.kind === "pin" && e.end.ref === b.host && e.end.pin === b.hostPin),
      );
      if (led?.I && led.I.max * 1000 > PROGRAM_MA)
        return [
          finding(
            "risk",
            `It loads the programmer with ${(led.I.max * 1000).toFixed(0)} mA.`,
            moveFix(c, b.ref, b.pin, b.host, needOf(c, b)),
          ),
        ];
      return [];
    }),
};

const solder: Rule = {
  rule: "board.solder",
  says: "A board without soldered headers makes no contact in a breadboard.",
  check: (c) =>
    c.netlist.expanded.hosts.flatMap((host): Finding[] => {
      const part = c.netlist.instance(host)!.part;
      // Without an iron `part.solder` speaks, of all parts at once.
      if (part.board!.headersSoldered || !part.id.startsWith("board/") || !c.project.brief.iron) return [];
      return [
        {
          rule: "board.solder",
          severity: "note",
          at: [host],
          message: `${label(c, host)} usually comes with its pin headers loose: solder them before anything is wired. Pins that are only pushed through make no contact.`,
          evidence: { headers: part.board!.headers.length },
          fixes: [],
        },
      ];
    }),
};

const driverNote: Rule = {
  rule: "board.driver",
  says: "A board with a serial bridge may need a driver on the computer, and the right kind of bootloader chosen.",
  check: (c) =>
    c.netlist.expanded.hosts.flatMap((host): Finding[] => {
      const board = c.netlist.instance(host)!.part.board!;
      if (board.usb.kind !== "bridge") return [];
      return [
        {
          rule: "board.driver",
          severity: "note",
          at: [host],
          message: `${label(c, host)}: ${board.usb.says}`,
          evidence: { usb: board.usb.connector },
          fixes: [],
        },
      ];
    }),
};

export const pinRules: Rule[] = [
  strapping,
  ispShared,
  solder,
  driverNote,
  nativeUsb,
  capability,
  duplicate,
  adcRadio,
  ...SHARED.map(sharedRule),
  ...HAZARD_RULES.map(hazardRule),
];
