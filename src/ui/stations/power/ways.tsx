"use client";
import type { PowerView } from "@/workers/power-view";
import { volts } from "./words";

type Way = PowerView["ways"][number];
type Step = Way["steps"][number];

const STEP: Record<Step["kind"], (s: Step) => string> = {
  source: (s) => s.label,
  inside: () => "inside the cells",
  cable: () => "cable",
  converter: (s) => s.label,
  wire: () => "wire",
};
/** A drop that a figure with two decimals does not show is no station. */
const shown = (s: Step) => s.kind === "source" || s.kind === "converter" || s.dropWorst_V >= 0.005;

/** One way, step by step. */
export function Steps({ w }: { w: Way }) {
  return (
    <ol className="flex flex-wrap items-start gap-x-1">
      {w.steps.filter(shown).map((s, i) => (
        <li key={i} className="flex items-start gap-1">
          {i > 0 && <span aria-hidden>→</span>}
          <span>
            {STEP[s.kind](s)} <span className="num">{volts(s.typ_V)}</span>
            <span className="num block text-sm text-soft">
              {s.kind === "source"
                ? "at worst "
                : s.dropWorst_V >= 0.005
                  ? `−${volts(s.dropWorst_V)}, `
                  : s.kind === "converter"
                    ? "holds "
                    : ""}
              {volts(s.worst_V)}
            </span>
          </span>
        </li>
      ))}
    </ol>
  );
}

/** How each supply comes to its part: what is left behind source, cable, regulators and wires, usually and at worst. */
export function Ways({ list }: { list: Way[] }) {
  if (!list.length) return null;
  const rows = [...list].sort((a, b) => a.worst_V - a.needs_V - (b.worst_V - b.needs_V));
  return (
    <section aria-label="Volts along the way" className="mt-4">
      <h2 className="text-lg">Volts along the way</h2>
      <p className="text-sm text-soft">
        Usual volts, and below them the lowest source at peak load: what each step takes and what it leaves. The
        tightest part comes first.
      </p>
      <table className="plain">
        <thead>
          <tr>
            <th>part</th>
            <th>from source to part</th>
            <th>arrives</th>
            <th>wants</th>
            <th>to spare</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((w) => {
            const spare = w.worst_V - w.needs_V;
            return (
              <tr key={`${w.ref} ${w.steps.length} ${w.needs_V}`}>
                <td>{w.label}</td>
                <td>
                  <Steps w={w} />
                </td>
                <td className="num">
                  {volts(w.typ_V)}
                  <span className="block text-sm text-soft">{volts(w.worst_V)}</span>
                </td>
                <td className="num">{volts(w.needs_V)}</td>
                <td
                  className={`num ${w.loaded_V < w.needs_V ? "font-bold text-stop" : spare < 0 ? "font-bold text-risk" : ""}`}
                >
                  {spare < 0 ? `−${volts(-spare)}` : volts(spare)}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
