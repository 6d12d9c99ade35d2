"use client";
import { SPARE_KINDS, type SpareKind } from "@/core/project/choices";
import type { WireRow } from "@/core/build";
import type { Kit } from "@/core/project/schema";
import { kitTable, kitWire } from "@/core/build/lists/kit";
import { wireSums } from "@/core/build/lists/sums";
import { USUAL_SPARES } from "@/core/build/lists/spares";
import { columnsOf, Table } from "@/ui/shared/table";
import { useAnswer } from "@/ui/shared/answer";
import { saveFile } from "@/ui/shared/save-file";
import { Coloured } from "@/ui/shared/wire-colours";
import { useProject } from "@/ui/state/project";
import { PartsTable } from "./parts-table";
import { Label } from "@/ui/shared/label";

const KIND_SAYS: Record<SpareKind, string> = {
  loose: "loose parts",
  wires: "wires",
  modules: "modules and chips",
  boards: "boards",
};

function Number0({
  says,
  value,
  most,
  change,
}: {
  says: string;
  value: number;
  most: number;
  change(n: number): void;
}) {
  const [now, setNow] = useAnswer(value, change);
  return (
    <Label className="inline-flex items-center gap-2">
      {says}
      <input
        type="number"
        className="num w-20"
        min={0}
        max={most}
        value={now}
        onChange={(e) => {
          const n = e.target.valueAsNumber;
          if (Number.isFinite(n)) setNow(Math.min(most, Math.max(0, Math.round(n))));
        }}
      />
    </Label>
  );
}

/** Lists: what to lay out, to buy and to have at hand, for one bench or for many. */
export function Lists() {
  const { view, project, edit } = useProject();
  const kit: Kit = project.kit ?? { benches: 1, spares_percent: {} };
  const set = (k: Partial<Kit>) => void edit({ type: "setKit", kit: k });
  const n = kit.benches;
  const csv = async () => {
    const { toCsv } = await import("@/core/formats/csv");
    const { fields, rows } = kitTable(view.bom, view.wires, project.kit);
    const plan = view.fingerprint;
    const marked = rows.map((r) => [...r, plan]);
    saveFile("kit.csv", toCsv([...fields, "plan"], marked), "text/csv");
  };
  return (
    <div className="mt-3">
      <div className="flex flex-wrap items-center gap-x-6 gap-y-2">
        <Number0 says="Benches" value={n} most={60} change={(v) => set({ benches: Math.max(1, v) })} />
        <span className="text-soft">Spares, in per cent:</span>
        {SPARE_KINDS.map((k) => (
          <Number0
            key={k}
            says={KIND_SAYS[k]}
            value={kit.spares_percent[k] ?? USUAL_SPARES[k]}
            most={300}
            change={(v) => set({ spares_percent: { [k]: v } })}
          />
        ))}
        <button className="btn" onClick={() => void csv()}>
          Save as CSV
        </button>
      </div>
      <div className="mt-3 grid gap-x-8 gap-y-4 xl:grid-cols-[3fr_2fr]">
        <section aria-label="Parts">
          <h2 className="font-bold">Parts</h2>
          <PartsTable />
        </section>
        <div>
          <section aria-label="Wires">
            <h2 className="font-bold">Wires</h2>
            <p className="text-soft" data-testid="wire-sums">
              {wireSums(view.wires)
                .map((w) => `${w.quantity * n} ${w.kind} ${w.ends}, ${((w.total_cm * n) / 100).toFixed(1)} m in all`)
                .join("; ")}
            </p>
            <Table
              label="Wires by colour and length"
              rows={view.wires}
              rowId={(w) => `${w.kind}${w.colour}${w.length_cm}${w.ends}`}
              columns={columnsOf<WireRow>([
                {
                  head: "number",
                  by: (w) => kitWire(w, project.kit).together,
                  show: (w) => kitWire(w, project.kit).together,
                  look: "num",
                },
                {
                  head: "spares",
                  by: (w) => kitWire(w, project.kit).spares,
                  show: (w) => kitWire(w, project.kit).spares || "",
                  look: "num",
                },
                { head: "colour", by: (w) => w.colour, show: (w) => <Coloured colour={w.colour} /> },
                { head: "length", by: (w) => w.length_cm, show: (w) => `${w.length_cm} cm`, look: "num" },
                { head: "ends", by: (w) => w.ends, show: (w) => w.ends },
                { head: "kind", by: (w) => w.kind, show: (w) => w.kind, look: "whitespace-normal!" },
              ])}
            />
          </section>
          <section aria-label="Tools" className="mt-4">
            <h2 className="font-bold">Tools and consumables</h2>
            <ul>
              {view.tools.map((t) => (
                <li key={t.name} className="border-b border-line py-1">
                  {t.name}
                  <span className="block text-sm text-soft">{t.why}</span>
                </li>
              ))}
            </ul>
          </section>
        </div>
      </div>
    </div>
  );
}
