"use client";
import { useState } from "react";
import { ghostKeys, type Key } from "@/core/plan/savings/ghosts";
import { Checkbox } from "@/ui/shared/checkbox";

const SIZE = 3;
const same = (a: Key, b: Key) => a.row === b.row && a.col === b.col;
const CORNER: Key[] = [
  { row: 0, col: 0 },
  { row: 0, col: 1 },
  { row: 1, col: 0 },
];

/** Three pressed keys in a corner make a fourth seem pressed: to try by hand, with diodes and without. */
export function Ghosts() {
  const [pressed, setPressed] = useState<Key[]>(CORNER);
  const [diodes, setDiodes] = useState(false);
  const ghosts = ghostKeys(SIZE, SIZE, pressed, diodes);
  const toggle = (k: Key) =>
    setPressed((list) => (list.some((p) => same(p, k)) ? list.filter((p) => !same(p, k)) : [...list, k]));
  const name = (k: Key) => `key R${k.row + 1} C${k.col + 1}`;
  return (
    <section aria-label="Ghost keys" className="mt-4 grid gap-x-8 border-t border-ink pt-2 md:grid-cols-[auto_1fr]">
      <table className="border-collapse">
        <thead>
          <tr>
            <td />
            {[0, 1, 2].map((c) => (
              <th key={c} scope="col" className="num px-2 font-normal text-soft">
                C{c + 1}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {[0, 1, 2].map((row) => (
            <tr key={row}>
              <th scope="row" className="num pr-2 font-normal text-soft">
                R{row + 1}
              </th>
              {[0, 1, 2].map((col) => {
                const k = { row, col };
                const down = pressed.some((p) => same(p, k));
                const ghost = ghosts.some((g) => same(g, k));
                return (
                  <td key={col} className="p-1">
                    <button
                      className={`size-12 border text-sm ${down ? "border-accent bg-accent text-accent-ink" : ghost ? "border-2 border-dashed border-fault text-fault" : "border-line"}`}
                      aria-pressed={down}
                      aria-label={down ? `down: ${name(k)}` : ghost ? `ghost: ${name(k)} seems pressed` : name(k)}
                      onClick={() => toggle(k)}
                    >
                      {down ? "down" : ghost ? "ghost" : ""}
                    </button>
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <div>
        <h2 className="font-bold">Ghost keys: press some</h2>
        <Checkbox className="mt-1" checked={diodes} onChange={setDiodes}>
          a diode at each key
        </Checkbox>
        <p className="mt-1 max-w-xl" aria-live="polite">
          {ghosts.length
            ? `The program also sees ${ghosts.map(name).join(", ")}: the scanned row reaches that column backwards through the other pressed keys.`
            : diodes
              ? "Each diode lets current through one way only, so no path leads backwards: the program sees what is pressed."
              : "The program sees what is pressed. Hold three keys that form a corner, and a fourth appears."}
        </p>
      </div>
    </section>
  );
}
