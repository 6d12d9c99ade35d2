import { partKind, type Catalogue } from "../../parts/catalogue";
import { seeded } from "./random";

const LOOSE = ["button", "led-red", "potentiometer", "led-rgb-cc", "toggle"].map((x) => `discrete/${x}`);
const SUPPLY = { ref: "S1", part: "supply/usb-charger" };

/** A random list of real parts on a random board, for benches and tests, and a way to make it shorter until it fits. */
export interface DenseList {
  parts: { ref: string; part: string }[];
  /** Takes a random part out; false when too few are left. */
  shorten(): boolean;
}

/** 6 to 19 parts by seed: modules that want pins, and loose parts that people use. */
export function denseList(seed: number, catalogue: Catalogue): DenseList {
  const roll = seeded(seed * 31 + 7);
  const int = (n: number) => Math.floor(roll() * n);
  const boards = catalogue.parts.filter((p) => p.board);
  const modules = catalogue.parts.filter((p) => partKind(p.id) === "module" && p.pins.some((x) => x.need));
  const parts = [{ ref: "B1", part: boards[int(boards.length)]!.id }, SUPPLY];
  const want = 6 + int(14);
  for (let i = 1; i <= want; i++)
    parts.push({
      ref: `M${i}`,
      part: roll() < 0.7 ? modules[int(modules.length)]!.id : LOOSE[int(LOOSE.length)]!,
    });
  return {
    parts,
    shorten() {
      if (parts.length < 4) return false;
      parts.splice(2 + int(parts.length - 2), 1);
      return true;
    },
  };
}
