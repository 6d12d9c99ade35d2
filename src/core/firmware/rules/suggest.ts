import type { Rule } from "../../project";
import type { DriverPart } from "../types";
import { driverOf } from "../drivers";
import { clockOf, givesOf, outName, takesOf, TIME_OF_DAY } from "./resolve";
import { isYesNo } from "./sentence";
import { proofOf } from "../proof";
import { AXES, eventOf } from "../usb/events";
import type { UsbHost } from "../usb/host";

type Send = Extract<Rule["do"], { act: "send" }>;

const isNumber = (p: DriverPart) => takesOf(p)?.word === "number" || takesOf(p)?.word === "digit";
/** What may move or switch something is only driven while somebody wants it. */
const isCareful = (p: DriverPart) => {
  const proof = proofOf(p);
  return proof.kind === "seen" && proof.careful !== undefined;
};

/**
 * Rules that let every output of a board do something as soon as the program runs: by a contact where there is one, else by a
 * reading; a display counts the seconds. What moves or switches a load waits for a contact: nothing starts by itself.
 */
export function suggest(parts: readonly DriverPart[], usb?: UsbHost): Rule[] {
  return [...(usb ? sendings(parts, usb) : []), ...doings(parts)];
}

/** What each contact and each reading can be to the computer, in order. */
const SENDS: Record<string, { down(k: number): Send["send"]; far?(k: number): Send["send"] | null }> = {
  keyboard: { down: (k) => ({ key: String.fromCharCode(97 + (k % 26)) }) },
  // The white keys from the middle of a piano.
  midi: {
    down: (k) => ({ note: 60 + 12 * Math.floor(k / 7) + [0, 2, 4, 5, 7, 9, 11][k % 7]! }),
    far: (k) => ({ controller: 1 + k }),
  },
  joystick: { down: (k) => ({ button: 1 + (k % 16) }), far: (k) => (AXES[k] ? { axis: AXES[k] } : null) },
};

/** A board that is a keyboard, an instrument or a game controller sends something with every contact and every knob. */
function sendings(parts: readonly DriverPart[], usb: UsbHost): Rule[] {
  const way = SENDS[usb.role];
  if (!way) return [];
  const inputs = parts.flatMap((p) => givesOf(p).map((q) => ({ p, q, out: outName(q) })));
  const send = (s: Send["send"] | null | undefined): Send[] => {
    if (!s) return [];
    const rule: Send = { ref: usb.ref, act: "send", send: s };
    const e = eventOf(rule);
    return typeof e !== "string" && typeof usb.out(e) !== "string" ? [rule] : [];
  };
  return [
    ...inputs
      .filter((x) => isYesNo(x.q))
      .flatMap(({ p, out }, k) => send(way.down(k)).map((d): Rule => ({ when: { ref: p.ref, out, is: 1 }, do: d }))),
    ...inputs
      .filter((x) => !isYesNo(x.q))
      .flatMap(({ p, out }, k) => send(way.far?.(k)).map((d): Rule => ({ when: { ref: p.ref, out }, do: d }))),
  ];
}

/** A block of a card and its file system are much for a chip of less memory: there it is for a person to ask for. */
const LOG_RAM_KB = 4;
/** How often a card gets a line, seconds. */
const LOG_S = 60;

function doings(parts: readonly DriverPart[]): Rule[] {
  const inputs = parts.flatMap((p) => givesOf(p).map((q) => ({ p, q, out: outName(q) })));
  const contacts = inputs.filter((x) => isYesNo(x.q));
  const readings = inputs.filter((x) => !isYesNo(x.q) && !driverOf(x.p)?.logs?.(x.p));
  const outputs = parts.filter((p) => takesOf(p) !== null);
  let k = 0;
  const nextContact = () => contacts[k++ % contacts.length]!;
  const cards = readings.length ? parts.filter((p) => driverOf(p)?.logs?.(p) && p.board.ram_kB >= LOG_RAM_KB) : [];
  const lines = cards.map((p): Rule => ({ when: { every_s: LOG_S }, do: { ref: p.ref, act: "log" } }));
  const acts = outputs.flatMap((p): Rule[] => {
    const reading = readings[0];
    // What the others say stands on it in words.
    if (driverOf(p)?.text?.(p) && inputs.length) return [];
    // A light blinks, a strip runs by itself.
    if (driverOf(p)?.lively) return [];
    if (isNumber(p))
      return reading
        ? [
            {
              when: { ref: reading.p.ref, out: clockOf(reading.p) ? TIME_OF_DAY : reading.out },
              do: { ref: p.ref, act: "follow" },
            },
          ]
        : [{ when: { every_s: 1 }, do: { ref: p.ref, act: "count" } }];
    if (contacts.length) {
      const c = nextContact();
      return [{ when: { ref: c.p.ref, out: c.out, is: 1 }, do: { ref: p.ref, act: "on" } }];
    }
    if (isCareful(p)) return [];
    const [least, most] = reading?.q.room ?? [0, 0];
    return reading
      ? [
          {
            when: {
              ref: reading.p.ref,
              out: reading.out,
              above: Math.round((least + most) / 2) / 10 ** reading.q.digits,
            },
            do: { ref: p.ref, act: "on" },
          },
        ]
      : [];
  });
  return [...acts, ...lines];
}
