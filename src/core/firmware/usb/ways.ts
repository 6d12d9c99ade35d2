import type { DriverPart } from "../types";
import { AXES, usageOf, type UsbEvent } from "./events";

/** How a family's core sends to the computer: text that is there once, and one event as a statement. */
interface Way {
  kinds: readonly UsbEvent["kind"][];
  includes?: (kinds: ReadonlySet<UsbEvent["kind"]>) => string[];
  helpers(kinds: ReadonlySet<UsbEvent["kind"]>): string;
  send(e: UsbEvent, value: string): string;
  /** What is chosen in the menu beside the board. */
  menu?: string;
}

const KEYBOARD = `// A keyboard as the HID usage tables have it: eight modifiers, six keys at once.
static const uint8_t usbKeyboard[] PROGMEM = {
  0x05, 0x01, 0x09, 0x06, 0xA1, 0x01, 0x85, 0x02, 0x05, 0x07, 0x19, 0xE0, 0x29, 0xE7, 0x15, 0x00, 0x25, 0x01,
  0x75, 0x01, 0x95, 0x08, 0x81, 0x02, 0x95, 0x01, 0x75, 0x08, 0x81, 0x03, 0x95, 0x06, 0x75, 0x08, 0x15, 0x00,
  0x25, 0x73, 0x05, 0x07, 0x19, 0x00, 0x29, 0x73, 0x81, 0x00, 0xC0,
};
static uint8_t usbKeys[8];
static void usbKey(uint8_t code, uint8_t shift, bool down) {
  if (down) usbKeys[0] |= shift;
  else usbKeys[0] &= ~shift;
  for (uint8_t i = 2; i < 8; i++)
    if (usbKeys[i] == (down ? 0 : code)) {
      usbKeys[i] = down ? code : 0;
      break;
    }
  HID().SendReport(2, usbKeys, sizeof usbKeys);
}`;
const JOYSTICK = `// A game controller as the HID usage tables have it: 16 buttons, six axes from -127 to 127.
static const uint8_t usbJoystick[] PROGMEM = {
  0x05, 0x01, 0x09, 0x05, 0xA1, 0x01, 0x85, 0x03, 0x05, 0x09, 0x19, 0x01, 0x29, 0x10, 0x15, 0x00, 0x25, 0x01,
  0x75, 0x01, 0x95, 0x10, 0x81, 0x02, 0x05, 0x01, 0x09, 0x30, 0x09, 0x31, 0x09, 0x32, 0x09, 0x33, 0x09, 0x34,
  0x09, 0x35, 0x15, 0x81, 0x25, 0x7F, 0x75, 0x08, 0x95, 0x06, 0x81, 0x02, 0xC0,
};
static uint8_t usbPad[8];
static void usbButton(uint8_t k, bool down) {
  if (down) usbPad[k >> 3] |= 1 << (k & 7);
  else usbPad[k >> 3] &= ~(1 << (k & 7));
  HID().SendReport(3, usbPad, sizeof usbPad);
}
static void usbAxis(uint8_t k, int8_t value) {
  usbPad[2 + k] = value;
  HID().SendReport(3, usbPad, sizeof usbPad);
}`;
/** Told to the computer before it asks what the board is. */
const node = (name: string) => `static struct UsbNode {
  HIDSubDescriptor node;
  UsbNode() : node(${name}, sizeof ${name}) { HID().AppendDescriptor(&node); }
} usbNode;`;

/** Descriptors of the USB class for MIDI devices 1.0: a control interface and a stream with one jack each way. */
const MIDI = `// A MIDI instrument as the USB class for MIDI devices has it.
class UsbMidi : public PluggableUSBModule {
  uint8_t types[2] = {EP_TYPE_BULK_OUT, EP_TYPE_BULK_IN};
 public:
  UsbMidi() : PluggableUSBModule(2, 2, types) { PluggableUSB().plug(this); }
  void send(uint8_t kind, uint8_t status, uint8_t a, uint8_t b) {
    uint8_t packet[4] = {kind, status, a, b};
    USB_Send(pluggedEndpoint + 1, packet, sizeof packet);
    USB_Flush(pluggedEndpoint + 1);
  }
 protected:
  int getInterface(uint8_t *count) override {
    *count += 2;
    const uint8_t i = pluggedInterface, e = pluggedEndpoint;
    const uint8_t list[] = {
      8, 11, i, 2, 1, 1, 0, 0,
      9, 4, i, 0, 0, 1, 1, 0, 0,
      9, 0x24, 1, 0, 1, 9, 0, 1, (uint8_t)(i + 1),
      9, 4, (uint8_t)(i + 1), 0, 2, 1, 3, 0, 0,
      7, 0x24, 1, 0, 1, 65, 0,
      6, 0x24, 2, 1, 1, 0,
      6, 0x24, 2, 2, 2, 0,
      9, 0x24, 3, 1, 3, 1, 2, 1, 0,
      9, 0x24, 3, 2, 4, 1, 1, 1, 0,
      9, 5, e, 2, 64, 0, 0, 0, 0,
      5, 0x25, 1, 1, 1,
      9, 5, (uint8_t)((e + 1) | 0x80), 2, 64, 0, 0, 0, 0,
      5, 0x25, 1, 1, 3,
    };
    return USB_SendControl(0, list, sizeof list);
  }
  int getDescriptor(USBSetup &) override { return 0; }
  bool setup(USBSetup &) override { return false; }
};
static UsbMidi usbMidiOut;
static void usbNote(uint8_t channel, uint8_t note, bool on) {
  usbMidiOut.send(on ? 0x09 : 0x08, (on ? 0x90 : 0x80) | channel, note, on ? 100 : 0);
}
static void usbControl(uint8_t channel, uint8_t controller, uint8_t value) {
  usbMidiOut.send(0x0B, 0xB0 | channel, controller, value);
}`;

const SEND: { [K in UsbEvent["kind"]]: (e: Extract<UsbEvent, { kind: K }>, v: string) => string } = {
  key: (e, v) => {
    const { code, shift } = usageOf(e.key)!;
    return `usbKey(0x${code.toString(16).toUpperCase().padStart(2, "0")}, ${shift ? 2 : 0}, ${v});`;
  },
  note: (e, v) => `usbNote(${e.channel - 1}, ${e.note}, ${v});`,
  control: (e, v) => `usbControl(${e.channel - 1}, ${e.controller}, ${v});`,
  button: (e, v) => `usbButton(${e.button - 1}, ${v});`,
  axis: (e, v) => `usbAxis(${AXES.indexOf(e.axis)}, ${v});`,
};
const send = (e: UsbEvent, v: string) => (SEND[e.kind] as (e: UsbEvent, v: string) => string)(e, v);

const isMidi = (kinds: ReadonlySet<UsbEvent["kind"]>) => kinds.has("note") || kinds.has("control");
const isPad = (kinds: ReadonlySet<UsbEvent["kind"]>) => kinds.has("button") || kinds.has("axis");
const hid = (kinds: readonly UsbEvent["kind"][]): Way => ({
  kinds,
  includes: (k) => (isMidi(k) ? ["<PluggableUSB.h>"] : ["<HID.h>"]),
  helpers: (k) =>
    isMidi(k) ? MIDI : isPad(k) ? `${JOYSTICK}\n${node("usbJoystick")}` : `${KEYBOARD}\n${node("usbKeyboard")}`,
  send,
});

/** Keys as the common keyboard library of the cores has them: characters, and numbers of its own for the others. */
const LIBRARY: Record<string, number> = {
  enter: 0xb0,
  escape: 0xb1,
  backspace: 0xb2,
  tab: 0xb3,
  space: 0x20,
  right: 0xd7,
  left: 0xd8,
  down: 0xd9,
  up: 0xda,
};
const inLibrary = (key: string) =>
  key.length === 1 ? key.charCodeAt(0) : /^f\d/.test(key) ? 0xc1 + Number(key.slice(1)) : LIBRARY[key]!;
const library: Way = {
  kinds: ["key"],
  includes: () => ["<Keyboard.h>"],
  helpers: () => `static void usbKey(uint8_t key, bool down) {
  static bool begun = false;
  if (!begun) Keyboard.begin();
  begun = true;
  if (down) Keyboard.press(key);
  else Keyboard.release(key);
}`,
  send: (e, v) => (e.kind === "key" ? `usbKey(${inLibrary(e.key)}, ${v});` : ""),
};

/** Cores that have all roles in themselves, once they are chosen in the menu. */
const builtIn: Way = {
  kinds: ["key", "note", "control", "button", "axis"],
  menu: "choose the USB type with this role in the menu",
  helpers: (k) =>
    isMidi(k)
      ? `static void usbNote(uint8_t channel, uint8_t note, bool on) {
  if (on) usbMIDI.sendNoteOn(note, 100, channel + 1);
  else usbMIDI.sendNoteOff(note, 0, channel + 1);
}
static void __attribute__((unused)) usbControl(uint8_t channel, uint8_t controller, uint8_t value) {
  usbMIDI.sendControlChange(controller, value, channel + 1);
}`
      : isPad(k)
        ? `static void usbButton(uint8_t k, bool down) { Joystick.button(k + 1, down); }
static void __attribute__((unused)) usbAxis(uint8_t k, int16_t value) {
  unsigned at = (value + 127) * 1023L / 254;
  if (k == 0) Joystick.X(at);
  else if (k == 1) Joystick.Y(at);
  else if (k == 2) Joystick.Z(at);
  else if (k == 3) Joystick.Zrotate(at);
  else if (k == 4) Joystick.sliderLeft(at);
  else Joystick.sliderRight(at);
}`
        : `static void usbKey(uint16_t key, bool down) {
  if (down) Keyboard.press(key);
  else Keyboard.release(key);
}`,
  send: (e, v) => {
    if (e.kind !== "key") return send(e, v);
    // Usage numbers with a mark of their own; characters as they are.
    const key = e.key.length === 1 ? e.key.charCodeAt(0) : 0xf000 | usageOf(e.key)!.code;
    return `usbKey(${key}, ${v});`;
  },
};

const WAYS: Partial<Record<string, Way>> = {
  avr: hid(["key", "note", "control", "button", "axis"]),
  samd: hid(["key", "button", "axis"]),
  sam3x: hid(["key", "button", "axis"]),
  rp2040: library,
  rp2350: library,
  stm32: library,
  imxrt: builtIn,
  kl26: builtIn,
};

/** Why a board's program can't send an event, or null. */
export function usbLacks(family: string, target: string, e: UsbEvent): string | null {
  if (target !== "sketch") return "it is sent by the C++ sketch, not by this program";
  const way = WAYS[family];
  if (way?.kinds.includes(e.kind)) return null;
  return `the sketch for this board's chip does not send it: its core ${way ? "has keys only" : "needs a library that is not part of it"}`;
}

const wayOf = (p: DriverPart) => WAYS[p.board.family]!;
const kindsOf = (outs: readonly DriverPart[]) => new Set(outs.map((p) => p.usb!.event.kind));

/** What a sketch includes and stands on to send to the computer; `outs`: everything that its rules send. */
export const usbIncludes = (outs: readonly DriverPart[]): string[] =>
  outs[0] ? (wayOf(outs[0]).includes?.(kindsOf(outs)) ?? []) : [];
export const usbHelpers = (outs: readonly DriverPart[]): string[] =>
  outs[0] ? [wayOf(outs[0]).helpers(kindsOf(outs))] : [];
export const usbMenu = (outs: readonly DriverPart[]): string | null => (outs[0] && wayOf(outs[0]).menu) ?? null;

const isSwitch = (p: DriverPart) => p.usb!.takes.range[1] === 1;

/** Told to be down, or at a value: sent when that is something else than before, and told on the console too. */
export function usbTell(p: DriverPart, value: string): string {
  const e = p.usb!.event;
  const label = p.label.replace(/[\\"]/g, "\\$&");
  const told = isSwitch(p)
    ? `Serial.println(${p.id}_is ? F("usb ${label} down") : F("usb ${label} up"));`
    : `Serial.print(F("usb ${label} "));\n  Serial.println((long)${p.id}_is);`;
  return `if (${p.id}_is != ${value}) {
  ${p.id}_is = ${value};
  ${wayOf(p).send(e, `${p.id}_is`)}
  ${told}
}`;
}
export const usbState = (p: DriverPart): string => `static int32_t ${p.id}_is = 0;`;
