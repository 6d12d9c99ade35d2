import type { Pattern } from "../types";
import { lightAndButton } from "./light-and-button";
import { takeTurns } from "./take-turns";
import { alternatingLamps } from "./alternating-lamps";
import { doorAndSound } from "./door-and-sound";
import { dimmer } from "./dimmer";
import { dryPlant } from "./dry-plant";
import { knobAndNeedle } from "./knob-and-needle";
import { distanceAndBeeps } from "./distance-and-beeps";
import { digitsOnThreeWires } from "./digits-on-three-wires";
import { keypad } from "./keypad";
import { parallelDisplay } from "./parallel-display";
import { stripWithCap } from "./strip-with-cap";
import { twoServos } from "./two-servos";
import { motorWithDriver } from "./motor-with-driver";
import { twelveVoltLoad } from "./twelve-volt-load";
import { loggerOnBattery } from "./logger-on-battery";
import { usbKeyboard } from "./usb-keyboard";
import { midiKeys } from "./midi-keys";
import { gamePad } from "./game-pad";
import { radioPage } from "./radio-page";
import { bareChip } from "./bare-chip";
import { twoBoardsTalking } from "./two-boards-talking";
import { isolatedSerialLine } from "./isolated-serial-line";

/** All patterns, from the first lesson on. Adding one is a file and a line here. */
export const PATTERNS: readonly Pattern[] = [
  lightAndButton,
  takeTurns,
  alternatingLamps,
  doorAndSound,
  dimmer,
  dryPlant,
  knobAndNeedle,
  distanceAndBeeps,
  digitsOnThreeWires,
  keypad,
  parallelDisplay,
  stripWithCap,
  twoServos,
  motorWithDriver,
  twelveVoltLoad,
  loggerOnBattery,
  usbKeyboard,
  midiKeys,
  gamePad,
  radioPage,
  bareChip,
  twoBoardsTalking,
  isolatedSerialLine,
];
