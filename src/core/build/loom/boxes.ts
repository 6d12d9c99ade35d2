import { findPin } from "../../parts/catalogue";
import type { Instance } from "../../circuit/netlist";
import { valueOf } from "../names";
import { isSupply } from "../runsheet/ends";
import type { BoxKind, LoomBox, LoomPin, Side } from "./types";

export const PITCH = 16;
const HEAD = 34;
const BOARD_W = 170;
const PART_W = 132;
const INLINE_W = 78;
const INLINE_H = 34;
/** More pins than this, and only the wired ones of a part are drawn. */
const MANY = 8;

const kindOf = (i: Instance): BoxKind =>
  i.part.board ? "board" : i.inserted ? "companion" : isSupply(i) ? "supply" : "part";

/** A loose part of two legs is drawn in the line of its wire. */
export const isInline = (i: Instance): boolean =>
  !i.part.board && i.part.pins.length === 2 && i.part.body.header?.kind === "leads" && i.part.id !== "discrete/button";

const NAME_MOST = 25;
/** A short name: the value of a loose part, else its name before the chip number, cut to what a box takes. */
export function shortName(i: Instance): string {
  const value = isInline(i) ? valueOf(i) : "";
  if (value) return value;
  const name = i.part.name.split(" · ")[0]!;
  const short = isInline(i) ? name.replace(/^Light, (\w+).*/, "$1 LED").slice(0, 14) : name;
  return short.length > NAME_MOST ? `${short.slice(0, NAME_MOST - 1)}…` : short;
}

/** Width of a letter at the head of a box, and what stays free beside it. */
const TITLE_CHAR = 6.7;
const TITLE_PAD = 8;
function titleOf(i: Instance, w: number): string {
  const whole = i.inserted || i.label === i.ref ? i.ref : `${i.ref} ${i.label}`;
  const most = Math.floor((w - TITLE_PAD) / TITLE_CHAR);
  return whole.length > most ? `${whole.slice(0, most - 1)}…` : whole;
}

const box = (i: Instance, size: Pick<LoomBox, "w" | "h" | "pins" | "inline">): LoomBox => ({
  ref: i.ref,
  label: i.inserted || i.label === i.ref ? "" : i.label,
  title: titleOf(i, size.w),
  name: shortName(i),
  kind: kindOf(i),
  x: 0,
  y: 0,
  fixed: false,
  ...size,
});

function boardBox(i: Instance, used: ReadonlySet<string>): LoomBox {
  const side = (label: string): Side => (label === "right" ? "right" : "left");
  const headers = i.part.board!.headers;
  const pinsOf = (s: Side) =>
    headers
      .filter((h) => side(h.side) === s)
      .flatMap((h) => i.part.pins.filter((p) => p.at?.header === h.id).sort((a, b) => a.at!.index - b.at!.index));
  const sockets = i.part.pins.filter((p) => p.role === "cable");
  const row = (p: { label: string }, k: number, s: Side): LoomPin => ({
    end: `${i.ref}.${p.label}`,
    label: p.label.replace(/^(.+)\.\d+$/, "$1"),
    x: s === "left" ? 0 : BOARD_W,
    y: HEAD + k * PITCH,
    side: s,
    used: used.has(`${i.ref}.${p.label}`),
    first: false,
  });
  const pins = [
    ...sockets.map((p, k) => row(p, k, "left")),
    ...(["left", "right"] as const).flatMap((s) => pinsOf(s).map((p, k) => row(p, k + sockets.length, s))),
  ];
  const h = Math.max(...pins.map((p) => p.y)) + PITCH;
  return box(i, { w: BOARD_W, h, pins, inline: false });
}

function inlineBox(i: Instance, used: ReadonlySet<string>, first: Side): LoomBox {
  const pins = i.part.pins.map((p, k): LoomPin => {
    const side: Side = (k === 0) === (first === "left") ? "left" : "right";
    return {
      end: `${i.ref}.${p.label}`,
      label: p.called ?? (/^[12]$/.test(p.label) ? "" : p.label),
      x: side === "left" ? 0 : INLINE_W,
      y: INLINE_H / 2,
      side,
      used: used.has(`${i.ref}.${p.label}`),
      first: false,
    };
  });
  return box(i, { w: INLINE_W, h: INLINE_H, pins, inline: true });
}

function partBox(i: Instance, used: ReadonlySet<string>, face: Side): LoomBox {
  const order = i.reading.rows.flat().flatMap((h) => h.pin ?? []);
  // As the header reads, what stands elsewhere on the board after it.
  const all = [
    ...order.flatMap((l) => findPin(i.part, l) ?? []),
    ...i.part.pins.filter((p) => !order.includes(p.label)),
  ];
  const list = all.length > MANY ? all.filter((p) => used.has(`${i.ref}.${p.label}`)) : all;
  const pins = list.map((p, k): LoomPin => ({
    end: `${i.ref}.${p.label}`,
    label: p.called ? `${p.label} ${p.called}` : p.label,
    x: face === "right" ? PART_W : 0,
    y: HEAD + k * PITCH,
    side: face,
    used: used.has(`${i.ref}.${p.label}`),
    first: p === all[0] && all.length > 2,
  }));
  return box(i, { w: PART_W, h: HEAD + Math.max(1, list.length) * PITCH - 4, pins, inline: false });
}

/** The box of an instance at the origin. `face`: the side on which a part's pins are; of a loose part, where its first leg is. */
export const boxOf = (i: Instance, used: ReadonlySet<string>, face: Side): LoomBox =>
  i.part.board ? boardBox(i, used) : isInline(i) ? inlineBox(i, used, face) : partBox(i, used, face);
