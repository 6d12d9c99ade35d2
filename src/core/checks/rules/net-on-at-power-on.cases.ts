import { assign } from "../../plan/assign";
import { catalogue } from "../../testing";
import { ADAPTER5, AVR, make, part, RP, USB, type Case } from "../cases/build";

/** A relay on an output of a chip behind a bus, on while its input is low as most are, or the other way round. */
const relay = (carrier: string, line: string, trigger: "low" | "high") =>
  assign(
    make(
      [RP, USB, ADAPTER5, part("M1", carrier), part("M2", "module/relay-1", { trigger })],
      [[`M2.IN`, `M1.${line}`]],
    ),
    catalogue,
  ).project;

export const netOnAtPowerOnCases: Case[] = [
  {
    rule: "net.on-at-power-on",
    severity: "risk",
    says: "a relay that is on while low on a maker of pulses, which gives lows until it is told",
    bad: () => relay("module/pca9685", "PWM3", "low"),
    near: () => relay("module/pca9685", "PWM3", "high"),
    also: ["risk level.low-high"],
  },
  {
    rule: "net.on-at-power-on",
    severity: "risk",
    says: "a relay on a shift register, which gives anything until it is told",
    bad: () => relay("module/74hc595", "QC", "high"),
    // A pin of the board is an open input until then, and the relay holds itself.
    near: () =>
      assign(make([AVR, USB, ADAPTER5, part("M2", "module/relay-1")], [["M2.IN", "B1.D7"]]), catalogue).project,
  },
];
