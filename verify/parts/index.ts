/** The bench's models wire by wire, so that one model judges programs of every language. */
import type { BusPart } from "../../src/core/bench/models/types";
import type { Circuit } from "../../src/core/circuit";
import { restOf } from "../../src/core/firmware/rest";
import { plainSteps } from "../../src/core/firmware/devices/loops";
import type { Device } from "../../src/core/firmware/devices/types";
import { findPin } from "../../src/core/parts/catalogue";
import { onPins } from "./pins";
import { onWiresSpi } from "./spi";
import type { WirePart } from "./types";
import { onClocked, onEcho, onInfrared, onMatrix, onOneWires, onPulses, onShiftIn, onShiftOut } from "./wires";

/** Which pin of the board each line of the part hangs on. */
export const linesOf = (c: Circuit, ref: string) =>
  new Map(c.netlist.bindings.filter((b) => b.ref === ref).map((b) => [b.pin, b.hostPin]));

/** Pins beside a port or a bus. */
const onLevels = (part: BusPart, lines: readonly string[]): WirePart => ({
  hears: lines,
  start: () => [],
  change(line, level, us) {
    part.pin?.(line, level, us / 1000);
    return [];
  },
});

/** A part as it hangs on its lines; null for one that has none but its bus or its port. */
export function wirePart(c: Circuit, ref: string, d: Device, part: BusPart, chain: number): WirePart | null {
  const over = d.over ?? { kind: "i2c" };
  const inst = c.netlist.instance(ref)!;
  const rest = (label: string) => {
    const r = restOf({ inst }, label);
    return r === "float" ? 0 : r;
  };
  const beside = plainSteps([...d.begin, ...d.read]).flatMap((s) => (s.do === "pin" ? [s.pin] : []));
  switch (over.kind) {
    case "i2c":
      return null;
    case "i2s":
      // Its port is asked for whole pieces of sound.
      return null;
    case "uart":
      // Its port is heard byte by byte; what is beside it, by its level.
      return beside.length ? onLevels(part, [...new Set(beside)]) : null;
    case "spi": {
      const g = inst.part.groups.find((x) => x.kind === "spi")!;
      return onWiresSpi(part, g.pins, g.mode ?? 0, [...new Set(beside)]);
    }
    case "onewire":
      // Alone on its wire, called as all are.
      return onOneWires([{ code: [], part }], over.pin);
    case "pulses":
      return onPulses(part, over.pin);
    case "clocked":
      return onClocked(part, over.data, over.clock);
    case "echo":
      return onEcho(part, over.out, over.back);
    case "infrared":
      return onInfrared(part, over.pin);
    case "shift":
      return over.way === "out" ? onShiftOut(part, over) : onShiftIn(part, over, chain);
    case "matrix":
      return onMatrix(part, over.rows, over.columns);
    case "pins": {
      const there = linesOf(c, ref);
      return onPins(
        part,
        over.out ?? [],
        (over.in ?? []).map((line) => ({
          line,
          analogue: findPin(inst.part, line)?.need?.kind === "adc" && there.has(line),
        })),
        new Map((over.out ?? []).map((o) => [o.pin, rest(o.pin)])),
      );
    }
  }
}
export { busOnTwoWires, onTwoWires } from "./two-wire";
export { onOneWires, onSerial } from "./wires";
export type { Reply, WirePart } from "./types";
