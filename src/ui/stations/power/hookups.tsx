"use client";
import { useState } from "react";
import { toast } from "sonner";
import { startValues } from "@/core/sums/address";
import { sumById } from "@/core/sums/list";
import { takeAnswers, type Hookup } from "@/core/sums/take";
import type { SumDone, Values } from "@/core/sums/types";
import { Picks } from "@/ui/shared/picks";
import { Calculator } from "@/ui/sums/calculator";
import { useProject } from "@/ui/state/project";

/** Where the project needs a resistor, a transistor or a capacitor: its sum, with the project's own values, to be taken over. */
export function Hookups({ list }: { list: Hookup[] }) {
  const { project, edit } = useProject();
  const [picked, setPicked] = useState<string | null>(null);
  const [changed, setChanged] = useState<Record<string, Record<string, number>>>({});
  const shown = list.find((h) => h.id === picked) ?? list[0];
  const sum = shown && sumById(shown.sum);
  const bench = (
    <p className="mt-3 text-sm">
      All sums, without a project:{" "}
      <a className="underline" href="/bench-sums">
        bench sums
      </a>
      .
    </p>
  );
  if (!shown || !sum)
    return (
      <>
        <p>No light, switch, button or bus is planned yet that would need a value worked out.</p>
        {bench}
      </>
    );
  const values = { ...startValues(sum), ...shown.values, ...changed[shown.id] };
  const take = (r: SumDone, v: Values) => {
    const answers = Object.fromEntries(r.answers.map((a) => [a.key, a.value]));
    void edit({ type: "batch", edits: takeAnswers(shown, v, answers) }).then(() =>
      toast(`${sum.name}: taken over for ${shown.label}.`),
    );
  };
  const settable = takeAnswers(shown, values, {}).length > 0;
  return (
    <div className="grid gap-x-8 gap-y-3 lg:grid-cols-[minmax(200px,260px)_1fr]">
      <nav aria-label="Hook-ups">
        <Picks
          label="Hook-ups"
          className="border-b border-line px-1 py-1"
          value={shown.id}
          picks={list.map((h) => ({
            value: h.id,
            name: (
              <>
                {h.label}
                <span className="block text-sm font-normal text-soft">
                  {sumById(h.sum)?.name}: {h.now}
                </span>
              </>
            ),
          }))}
          pick={setPicked}
        />
        {bench}
      </nav>
      <section aria-label={sum.name}>
        <h2 className="text-lg">
          {sum.name} <span className="font-normal text-soft">for {shown.label}</span>
        </h2>
        <p className="mb-2 text-soft">{sum.says}</p>
        <Calculator
          key={shown.id}
          sum={sum}
          values={values}
          set={(k, v) => setChanged((c) => ({ ...c, [shown.id]: { ...c[shown.id], [k]: v } }))}
          owned={project.drawer}
        >
          {(r, v) =>
            settable && (
              <button className="btn-main mt-3" onClick={() => take(r, v)}>
                Use this in the project
              </button>
            )
          }
        </Calculator>
      </section>
    </div>
  );
}
