import { findPin } from "../catalogue";
import type { Instance } from "../netlist";

const ORDINALS = ["first", "second", "third"];
const nth = (n: number) =>
  ORDINALS[n - 1] ?? `${n}${[11, 12, 13].includes(n % 100) ? "th" : (["th", "st", "nd", "rd"][n % 10] ?? "th")}`;

/** Where a pin is, in words: "left header, third from the USB end, printed D4" or "second of 4, printed VCC". */
export function pinWords(inst: Instance, label: string): string {
  const pin = findPin(inst.part, label);
  if (!pin) return label;
  if (pin.role === "cable") return "USB socket";
  if (pin.at && inst.part.board) {
    const header = inst.part.board.headers.find((h) => h.id === pin.at!.header);
    return `${header?.side ?? pin.at.header} header, ${nth(pin.at.index)} from the USB end, printed ${pin.label.replace(/\.\d+$/, "")}`;
  }
  const pins = inst.part.pins;
  if (inst.part.body.header?.kind === "leads" && pin.says) return `${pin.says} (${pin.label})`;
  if (pins.length < 3) return pin.label;
  return `${nth(pins.indexOf(pin) + 1)} of ${pins.length}, printed ${pin.label}`;
}
