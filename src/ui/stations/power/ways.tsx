"use client";
import type { PowerView } from "@/workers/power-view";
import { columnsOf, Table } from "@/ui/shared/table";
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
                  ? `${volts(-s.dropWorst_V)}, `
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

const spare = (w: Way) => w.worst_V - w.needs_V;
const COLUMNS = columnsOf<Way>([
  { head: "part", by: (w) => w.label, show: (w) => w.label },
  { head: "from source to part", show: (w) => <Steps w={w} /> },
  {
    head: "arrives",
    by: (w) => w.worst_V,
    look: "num",
    show: (w) => (
      <>
        {volts(w.typ_V)}
        <span className="block text-sm text-soft">{volts(w.worst_V)}</span>
      </>
    ),
  },
  { head: "wants", by: (w) => w.needs_V, look: "num", show: (w) => volts(w.needs_V) },
  {
    head: "to spare",
    by: spare,
    look: (w) => `num ${w.loaded_V < w.needs_V ? "font-bold text-stop" : spare(w) < 0 ? "font-bold text-risk" : ""}`,
    show: (w) => volts(spare(w)),
  },
]);

/** How each supply comes to its part: what is left behind source, cable, regulators and wires, usually and at worst. */
export function Ways({ list }: { list: Way[] }) {
  if (!list.length) return null;
  const rows = [...list].sort((a, b) => spare(a) - spare(b));
  return (
    <section aria-label="Volts along the way" className="mt-4">
      <h2 className="text-lg">Volts along the way</h2>
      <p className="text-sm text-soft">
        Usual volts, and below them the lowest source at peak load: what each step takes and what it leaves. The
        tightest part comes first.
      </p>
      <Table
        label="From source to part"
        rows={rows}
        rowId={(w) => `${w.ref} ${w.steps.length} ${w.needs_V}`}
        columns={COLUMNS}
      />
    </section>
  );
}
