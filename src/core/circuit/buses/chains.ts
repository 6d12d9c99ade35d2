import type { Circuit } from "..";
import { findPin } from "../../parts/catalogue";
import { pullUpsOf } from "./i2c";
import { wireOf } from "./wires";

/** A line of addressable lights behind one pin: how many, what memory and time they take. */
export interface LightChain {
  host: string;
  pin: string;
  parts: { ref: string; label: string; pixels: number }[];
  pixels: number;
  /** Three bytes a light, for one picture. */
  ram_B: number;
  /** Share of the chip's memory. */
  ram_share: number;
  /** Time to send one picture; interrupts wait meanwhile on small chips. */
  frame_s: number;
  /** Characters that a serial port at 115200 baud would lose meanwhile, with one byte of buffer in hardware. */
  lost_chars: number;
}

const BYTES = 3;
/** 24 bits of 1.25 µs a light, and the gap that ends the picture (WS2812B). */
const PIXEL_S = 30e-6;
const GAP_S = 280e-6;
const CHAR_S = 10 / 115_200;

/** Every line of one-wire addressable lights, in the order of its pieces. */
export function lightChains(c: Circuit): LightChain[] {
  const lines = new Map<string, LightChain>();
  for (const b of c.netlist.bindings) {
    const inst = c.netlist.instance(b.ref)!;
    const chain = inst.part.groups.find((g) => g.kind === "chain" && g.pins.in === b.pin && !g.pins.clockIn);
    const board = c.netlist.instance(b.host)?.part.board;
    const pixels = inst.vars.pixels;
    if (!chain || !board || !pixels) continue;
    const key = `${b.host}.${b.hostPin}`;
    const line = lines.get(key) ?? {
      host: b.host,
      pin: b.hostPin,
      parts: [],
      pixels: 0,
      ram_B: 0,
      ram_share: 0,
      frame_s: 0,
      lost_chars: 0,
    };
    line.parts.push({ ref: b.ref, label: inst.label, pixels });
    line.pixels += pixels;
    line.ram_B = line.pixels * BYTES;
    line.ram_share = line.ram_B / (board.ram_kB * 1024);
    line.frame_s = line.pixels * PIXEL_S + GAP_S;
    line.lost_chars = Math.max(0, Math.floor((line.pixels * PIXEL_S) / CHAR_S) - 1);
    lines.set(key, line);
  }
  return [...lines.values()];
}

/** Sensors that share one wire: their pull-up, what it asks of them, and how long one round takes. */
export interface OneWire {
  host: string;
  pin: string;
  parts: { ref: string; label: string }[];
  ohm: number;
  /** What a sensor must sink to pull the line low, amperes; the parts stand 4 mA at 0.4 V. */
  sink_A: number;
  cm: number;
  /** One conversion and one reading of each, seconds. */
  round_s: number;
}
const CONVERT_S = 0.75;
const READ_S = 0.013;

/** Every one-wire line. */
export function oneWires(c: Circuit): OneWire[] {
  const lines = new Map<string, OneWire>();
  for (const b of c.netlist.bindings) {
    if (b.need.role !== "onewire") continue;
    const inst = c.netlist.instance(b.ref)!;
    const net = c.netlist.netOf(`${b.ref}.${b.pin}`);
    const pulls = pullUpsOf(c, net);
    const ohm = pulls.length ? 1 / pulls.reduce((s, p) => s + 1 / p.ohm, 0) : Infinity;
    const key = `${b.host}.${b.hostPin}`;
    const line = lines.get(key) ?? {
      host: b.host,
      pin: findPin(c.netlist.instance(b.host)!.part, b.hostPin)?.label ?? b.hostPin,
      parts: [],
      ohm,
      sink_A: 0,
      cm: 0,
      round_s: CONVERT_S,
    };
    line.parts.push({ ref: b.ref, label: inst.label });
    line.sink_A = Number.isFinite(ohm) ? (Math.max(...pulls.map((p) => p.V.max)) - 0.4) / ohm : 0;
    line.cm += wireOf(c, b.ref);
    line.round_s += READ_S;
    lines.set(key, line);
  }
  return [...lines.values()];
}
