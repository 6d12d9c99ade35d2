"use client";
import { Sheet } from "@/ui/shared/dialog";
import { PRICE, usbWords, type Trial } from "./words";
import { Hidden } from "@/ui/shared/hidden";

const kB = (n: number) => (n >= 1024 ? `${Number((n / 1024).toFixed(1))} MB` : `${n} kB`);

/** One line a question; what differs is set in bold. */
const LINES: [what: string, of: (t: Trial) => string][] = [
  ["Do the pins fit?", (t) => t.why],
  ["Price of the plan", (t) => (t.fits ? String(t.cost) : "–")],
  ["Pins left", (t) => (t.fits ? String(t.spare) : "–")],
  ["… by what they can do", (t) => t.left.map((l) => `${l.name} ${l.pins.length}`).join(", ") || "–"],
  ["Cautions at pins", (t) => (t.fits ? String(t.cautions) : "–")],
  ["Level changes", (t) => (t.fits ? String(t.shifters) : "–")],
  ["Supply", (t) => t.supply.says],
  ["Logic", (t) => `${t.V} V`],
  ["USB", (t) => usbWords(t.usb)],
  ["Radio", (t) => t.radio.join(" and ") || "none"],
  ["Program memory", (t) => kB(t.flash_kB)],
  ["Working memory", (t) => kB(t.ram_kB)],
  ["Size", (t) => `${t.mm[0]} × ${t.mm[1]} mm`],
  ["Headers", (t) => (t.solder ? "to be soldered" : "soldered")],
  ["On a breadboard", (t) => (t.breadboard ? "yes" : "no: wires from its headers")],
  ["Price class", (t) => PRICE[t.price]],
  ["Drawer", (t) => (t.owned ? "you have one" : t.current ? "in use" : "to buy")],
  ["Programs that we write", (t) => t.targets.join(", ") || "none yet: pin names only"],
  ["Certainty of the data", (t) => t.certainty],
];

/** Two boards side by side, planned with the same parts. */
export function SideBySide({ a, b, close, use }: { a: Trial; b: Trial; close(): void; use(id: string): void }) {
  return (
    <Sheet title="Two boards, the same parts" close={close} wide>
      <table className="plain mt-2">
        <thead>
          <tr>
            <th>
              <Hidden>Question</Hidden>
            </th>
            {[a, b].map((t) => (
              <th key={t.board}>
                <strong className="text-ink">{t.name}</strong>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {LINES.map(([what, of]) => {
            const [x, y] = [of(a), of(b)];
            return (
              <tr key={what}>
                <td className="text-soft">{what}</td>
                <td className={`w-2/5 ${x === y ? "" : "font-bold"}`}>{x}</td>
                <td className={`w-2/5 ${x === y ? "" : "font-bold"}`}>{y}</td>
              </tr>
            );
          })}
          <tr>
            <td />
            {[a, b].map((t) => (
              <td key={t.board}>
                {t.current ? (
                  "in use"
                ) : (
                  <button
                    className="btn"
                    onClick={() => {
                      use(t.board);
                      close();
                    }}
                    aria-label={`Use this board: ${t.name}`}
                  >
                    Use this board
                  </button>
                )}
              </td>
            ))}
          </tr>
        </tbody>
      </table>
    </Sheet>
  );
}
