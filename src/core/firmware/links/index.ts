/** How parts are reached: one file a way, each in both languages. Adding one is a file and a line here. */
import { clocked } from "./clocked";
import { echo } from "./echo";
import { i2c } from "./i2c";
import { i2s } from "./i2s";
import { infrared } from "./infrared";
import { matrix } from "./matrix";
import { onewire } from "./onewire";
import { pins } from "./pins";
import { pulses } from "./pulses";
import { shift } from "./shift";
import { spi } from "./spi";
import { uart } from "./uart";
import type { DriverPart } from "../types";
import type { Link, LinkInC, LinkInPython, Over } from "./types";

const LINKS: { [K in Over["kind"]]: Link<K> } = {
  i2c,
  spi,
  onewire,
  pulses,
  clocked,
  echo,
  shift,
  matrix,
  pins,
  uart,
  infrared,
  i2s,
};

const of = (over: Over) => LINKS[over.kind] as Link<Over["kind"]>;
export const inC = (over: Over): LinkInC => of(over).c(over as never);
/** The same in plain C for AVR chips. */
export const inPlainC = (over: Over): LinkInC => of(over).plain?.(over as never) ?? inC(over);
export const inPython = (over: Over): LinkInPython => of(over).python(over as never);
/** Why a part can't be reached so by a program, or null. */
export const unfitLink = (over: Over, p: DriverPart): string | null =>
  of(over).unfit?.(p.target) ?? of(over).unfitPart?.(p, over as never) ?? null;

export type { LinkInC, LinkInPython, Over, OutPin } from "./types";
