import { describe, expect, it } from "vitest";
import { circuitOf, type Circuit } from "../src/core/circuit";
import { findings } from "../src/core/checks";
import { sketch } from "../src/core/firmware/targets/sketch";
import { KEY_NAMES } from "../src/core/firmware/usb/events";
import { findPin } from "../src/core/parts/catalogue";
import { assign } from "../src/core/plan/assign";
import type { Rule } from "../src/core/project";
import { catalogue, make, USB } from "../src/core/testing";
import { checkSketch } from "./avr/toolchain";
import { runOnHost } from "./host/compile";

const KEYS = [1, 2].map((n) => ({ ref: `SW${n}`, part: "discrete/button", label: `Key ${n}` }));
const KNOB = { ref: "R1", part: "discrete/potentiometer", label: "Knob" };
const planned = (board: string, usbRole: string, rules?: Rule[]): Circuit => {
  const a = assign(make([{ ref: "B1", part: board, options: { usbRole } } as never, USB, ...KEYS, KNOB]), catalogue);
  return circuitOf({ ...a.project, ...(rules && { rules }) }, catalogue);
};
const gpioOf = (c: Circuit, ref: string) => {
  const pin = findPin(c.netlist.instance("B1")!.part, c.netlist.bindings.find((b) => b.ref === ref)!.hostPin)!;
  return pin.names!.sketch!;
};
/** What the program does while the first key is held from 1 s to 2 s. */
function held(c: Circuit): string[] {
  const { family } = c.netlist.instance("B1")!.part.board!;
  process.env.HELD_LOW = `${gpioOf(c, "SW1").replace(/^D/, "")}:1000:2000`;
  try {
    return runOnHost(sketch.files(c), "starter", 4000, "", [], family);
  } finally {
    delete process.env.HELD_LOW;
  }
}
const sent = (lines: readonly string[]) =>
  lines.filter((l) => /^(REPORT|PRESS|RELEASE|NOTE|CONTROL|BUTTON|AXIS|usb )/.test(l));

describe("boards that are more than a serial port to the computer", () => {
  it.each(["keyboard", "midi", "joystick"])(
    "a %s on the chip with USB of its own compiles with the packaged core",
    (role) => {
      const c = planned("board/atmega32u4-compact", role);
      expect(findings(c).filter((f) => f.severity !== "note")).toEqual([]);
      checkSketch(`usb-${role}`, sketch.files(c), "starter", "atmega32u4");
      const text = sketch.files(c).find((f) => f.path === "starter/starter.ino")!.text;
      expect(text).toContain("// When Key 1 is pressed, the computer gets ");
      expect(sketch.files(c).find((f) => f.path === "UPLOAD.md")!.text).toContain("Does it send without end?");
    },
  );
  it("a key is down while its contact is held, and let go after: usage 4, the letter a", () => {
    const lines = held(planned("board/samd21-compact", "keyboard"));
    expect(lines.filter((l) => l.startsWith("DESCRIPTOR"))).toEqual(["DESCRIPTOR 47"]);
    expect(sent(lines)).toEqual([
      "REPORT 2 00 00 04 00 00 00 00 00",
      "usb key a down",
      "REPORT 2 00 00 00 00 00 00 00 00",
      "usb key a up",
    ]);
  });
  it("keys with shift, with names, and two at once", () => {
    const when = { ref: "SW1", out: "pressed", is: 1 };
    const key = (k: string): Rule => ({ when, do: { ref: "B1", act: "send", send: { key: k } } });
    const lines = held(planned("board/samd21-compact", "keyboard", [key("A"), key("enter")]));
    expect(sent(lines).filter((l) => l.startsWith("REPORT"))).toEqual([
      "REPORT 2 02 00 04 00 00 00 00 00",
      "REPORT 2 02 00 04 28 00 00 00 00",
      "REPORT 2 00 00 00 28 00 00 00 00",
      "REPORT 2 00 00 00 00 00 00 00 00",
    ]);
  });
  it.each(["board/samd21-compact", "board/rp2040-forty", "board/imxrt1062-compact"])(
    "%s: every key there is, whatever it means to a compiler",
    (board) => {
      const when = { ref: "SW1", out: "pressed", is: 1 };
      const keys = [...Array.from({ length: 95 }, (_, i) => String.fromCharCode(32 + i)), ...KEY_NAMES];
      const lines = held(
        planned(
          board,
          "keyboard",
          keys.map((key) => ({ when, do: { ref: "B1", act: "send", send: { key } } })),
        ),
      );
      // A space has two names.
      for (const k of keys)
        expect(
          lines.filter((l) => l === `usb key ${k} down`),
          k,
        ).toHaveLength(1);
    },
  );
  it("a game controller: a button; its axis rests in the middle", () => {
    const lines = sent(held(planned("board/samd21-compact", "joystick")));
    expect(lines).toContain("usb button 1 down");
    // Half of a knob is the middle of an axis, where it rests: nothing to send.
    expect(lines.filter((l) => l.startsWith("REPORT"))).toEqual([
      "REPORT 3 01 00 00 00 00 00 00 00",
      "REPORT 3 00 00 00 00 00 00 00 00",
    ]);
    expect(lines.filter((l) => l.startsWith("usb axis"))).toEqual([]);
  });
  it("an instrument, by a core that is one by itself: the middle of the piano, and a controller", () => {
    const lines = sent(held(planned("board/imxrt1062-compact", "midi")));
    expect(lines).toContain("NOTE 60 100 1");
    expect(lines).toContain("NOTE OFF 60 0 1");
    expect(lines.some((l) => /^CONTROL 1 6[34] 1$/.test(l))).toBe(true);
  });
  it.each([
    ["board/rp2040-forty", "PRESS 97"],
    ["board/imxrt1062-compact", "PRESS 97"],
    ["board/mkl26z64-compact", "PRESS 97"],
  ])("%s: a key by its core", (board, press) => {
    expect(sent(held(planned(board, "keyboard")))).toEqual([
      press,
      "usb key a down",
      press.replace("PRESS", "RELEASE"),
      "usb key a up",
    ]);
  });
  it("what a board can't send is told with the reason, and the rest goes on", () => {
    const when = { ref: "SW1", out: "pressed", is: 1 };
    const note: Rule = { when, do: { ref: "B1", act: "send", send: { note: 60 } } };
    const c = planned("board/rp2040-forty", "midi", [note]);
    const told = findings(c).find((f) => f.rule === "firmware.rule")!;
    expect(told.message).toContain("its core has keys only");
    const wrong = planned("board/atmega32u4-compact", "serial", [note]);
    expect(findings(wrong).find((f) => f.rule === "firmware.rule")!.message).toContain(
      "at Parts choose a MIDI instrument for it",
    );
  });
});
