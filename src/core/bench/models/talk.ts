import type { BusPart, Model, World } from "./types";

/** Letters that come by themselves, one every half second. */
const listener = (part: string): Model => ({
  part,
  worlds: [
    { heard: 7, letter: 65 },
    { heard: 200, letter: 10 },
  ],
  within: { heard: 0, letter: 0 },
  settles: 2000,
  make: speaks,
});

/** Letters of others, one every other millisecond from a time on, the last of them given. */
function letters(n: number, last: number, start = 1000) {
  const list = Array.from({ length: n }, (_, i) => (i === n - 1 ? last : (i * 37) & 255));
  return (now: number) => list.slice(0, now < start ? 0 : Math.floor((now - start) / 2) + 1);
}
function speaks(w: World): BusPart {
  const came = letters(w.heard!, w.letter!);
  let taken = 0;
  return {
    write: () => true,
    read(n, now) {
      const list = came(now);
      return [list.length & 255, list.at(-1) ?? 0, 0].slice(0, n);
    },
    serial(now) {
      const list = came(now);
      const out = list.slice(taken);
      taken = list.length;
      return out;
    },
  };
}

export const hc05 = listener("module/hc05");
export const usbUart3v3 = listener("module/usb-uart-3v3");
export const usbUart5v = listener("module/usb-uart-5v");

/** MAX3485 and MAX485: sends while DE is high, hears the pair while RE is low; what it sends it hears itself. */
const lineDriver = (part: string): Model => ({
  part,
  worlds: [
    { heard: 9, letter: 88 },
    { heard: 130, letter: 2 },
  ],
  within: { heard: 0, letter: 0 },
  settles: 5000,
  make(w) {
    let de = 0;
    let re = 1;
    /** What its receiver gave: a byte of noise when it was switched on, as long as nobody drives the pair. */
    const heard = [0xff];
    let taken = 0;
    /** Bytes on the way: a millisecond each at 9600 baud. */
    let queue: { at: number; byte: number }[] = [];
    const came = letters(w.heard! - 3, w.letter!, 4000);
    let others = 0;
    const look = (now: number) => {
      for (const x of queue) if (x.at <= now && de && re === 0) heard.push(x.byte);
      queue = queue.filter((x) => x.at > now);
      // With its driver on, or its receiver off, nobody else is heard: they wait.
      if (de || re) return;
      const list = came(now);
      heard.push(...list.slice(others));
      others = list.length;
    };
    return {
      pin(label, level, now) {
        look(now);
        if (label === "DE") de = level;
        else if (label === "RE") re = level;
      },
      write(bytes, now) {
        look(now);
        bytes.forEach((byte, i) => queue.push({ at: now + (i + 1) * 1.05, byte }));
        return true;
      },
      read(n, now) {
        look(now);
        return [heard.length & 255, heard.at(-1)!, 0].slice(0, n);
      },
      serial(now) {
        look(now);
        const out = heard.slice(taken);
        taken = heard.length;
        return out;
      },
    };
  },
});
export const max3485 = lineDriver("module/max3485");
export const max485 = lineDriver("module/max485");

/** A player with its card: it hears frames with a right sum and no others, and nothing while it looks through its card. */
export const mp3Player: Model = {
  part: "module/mp3-player",
  worlds: [{}],
  within: { plays: 0, volume: 0 },
  settles: 2500,
  wants: () => [0, 1, 2, 0, 255, 256, 1234, 0].map((v) => [v, { plays: v, volume: 18 }] as const),
  make() {
    let plays = 3;
    let last = 0;
    let volume = 25;
    return {
      write(b, now) {
        // It looks through its card; it takes one thing at a time.
        if (now < 1500 || now - last < 20 || b.length !== 10) return true;
        last = now;
        const [start, version, length, command, , high, low, h2, l2, end] = b as number[];
        const sum = -(version! + length! + command! + b[4]! + high! + low!) & 0xffff;
        if (start !== 0x7e || end !== 0xef || version !== 0xff || length !== 6 || sum !== ((h2! << 8) | l2!))
          return true;
        // An answer that was asked for comes back, and is nobody's here.
        if (b[4] !== 0) return true;
        const value = (high! << 8) | low!;
        if (command === 0x03) plays = value;
        if (command === 0x16) plays = 0;
        if (command === 0x06) volume = value;
        return true;
      },
      read: (n) => Array<number>(n).fill(0),
      serial: () => [],
      is: () => ({ plays, volume }),
    };
  },
};
