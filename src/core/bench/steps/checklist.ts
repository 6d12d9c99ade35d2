import type { Circuit } from "../../circuit";
import { beforePower } from "./before-power";
import { bringUp } from "./bring-up";
import { firstPower } from "./first-power";
import type { CheckItem } from "./types";

const known = new WeakMap<Circuit, CheckItem[]>();

/** Everything to measure and to look at, each once, with what a sound build shows. */
export function checklist(c: Circuit): CheckItem[] {
  const there = known.get(c);
  if (there) return there;
  const all = [...beforePower(c), ...firstPower(c), ...bringUp(c)];
  const made = [...new Map(all.map((i) => [i.id, i])).values()];
  known.set(c, made);
  return made;
}
