/** Everything that can be wrong with one thing of a build. A kind of fault is one file in `kinds/` and one line here. */
import type { Laid } from "../laid/laid";
import { bridged } from "./kinds/bridged";
import { capacitor } from "./kinds/capacitor";
import { deadPart } from "./kinds/dead-part";
import { openWire } from "./kinds/open-wire";
import { otherProgram } from "./kinds/other-program";
import { otherRow } from "./kinds/other-row";
import { pinOff } from "./kinds/pin-off";
import { resistors } from "./kinds/resistors";
import { sagging } from "./kinds/sagging";
import { selects } from "./kinds/selects";
import { stuckContact } from "./kinds/stuck-contact";
import { swapped } from "./kinds/swapped";
import { turned } from "./kinds/turned";
import { wrongEnd } from "./kinds/wrong-end";
import { uploading } from "./kinds/uploading";
import { wrongAddress } from "./kinds/address";
import { wrongSupply } from "./kinds/wrong-supply";
import type { Fault, FaultKind } from "./types";

export type { Fault, FaultKind } from "./types";

export const FAULT_KINDS: readonly FaultKind[] = [
  openWire,
  pinOff,
  swapped,
  selects,
  wrongEnd,
  bridged,
  turned,
  otherRow,
  wrongSupply,
  resistors,
  capacitor,
  stuckContact,
  wrongAddress,
  sagging,
  otherProgram,
  uploading,
  deadPart,
];

const known = new WeakMap<Laid, Fault[]>();

/** Every single fault of a plan, with how likely it is against the others. */
export function faultsOf(laid: Laid): readonly Fault[] {
  const there = known.get(laid);
  if (there) return there;
  const made = FAULT_KINDS.flatMap((kind) =>
    kind.find(laid).map(({ times, ...f }): Fault => ({
      ...f,
      id: `${kind.id} ${f.id}`,
      kind: kind.id,
      weight: kind.often * (times ?? 1),
    })),
  );
  known.set(laid, made);
  return made;
}

/** What mending a fault takes, minutes. */
export const minutesOf = (f: Fault): number => FAULT_KINDS.find((k) => k.id === f.kind)!.minutes;
