import type { Model } from "./types";

const FRAME_MS = 68;
const REPEAT_MS = 108;
const turned = (v: number) => v ^ 255;

/**
 * Somebody with a remote control: frames of four bytes, each other byte the one before it turned over; while a key is held, a short
 * sign every 108 ms. The first frame is spoilt on its way. What comes by light is heard by `serial`: four bytes, or one for the sign.
 */
export const irReceiver: Model = {
  part: "module/ir-receiver-38k",
  worlds: [
    { presses: 3, key: 69, remote: 0 },
    { presses: 2, key: -1, remote: 4 },
    { presses: 5, key: 0, remote: 200 },
  ],
  within: { presses: 0, key: 0, remote: 0 },
  settles: 4000,
  make(w) {
    const holds = w.key! >= 0;
    const last = holds ? w.key! : 22;
    const plan: { at: number; bytes: number[] }[] = [
      { at: 500, bytes: [w.remote!, turned(w.remote!), 17, turned(16)] },
      ...Array.from({ length: w.presses! }, (_, i) => {
        const key = i === w.presses! - 1 ? last : 90 + i;
        return { at: 900 + 400 * i, bytes: [w.remote!, turned(w.remote!), key, turned(key)] };
      }),
    ];
    const end = plan.at(-1)!.at;
    const right = plan.slice(1);
    let sent = 0;
    let signs = 0;
    return {
      write: () => true,
      read(n, now) {
        const came = right.filter((f) => f.at + FRAME_MS <= now);
        const f = came.at(-1);
        const since = f ? now - f.at - FRAME_MS : Infinity;
        const held = f && (since < 250 || (holds && came.length === right.length));
        return [came.length, held ? 1 : 0, f?.bytes[0] ?? 0, f?.bytes[2] ?? 0].slice(0, n);
      },
      serial(now) {
        const next = plan[sent];
        if (next) {
          if (now < next.at) return [];
          sent++;
          return next.bytes;
        }
        if (!holds || now < end + REPEAT_MS * (signs + 1)) return [];
        signs++;
        return [0];
      },
    };
  },
};
