"use client";
import { useState } from "react";
import type { CheckItem } from "@/core/bench";
import { Tick } from "@/ui/shared/tick";
import { StationTitle } from "@/ui/shared/title";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";

const wanted = (i: CheckItem) =>
  i.unit === "Ω" && i.low === 0
    ? "beeps"
    : i.low === null
      ? `at most ${i.high} ${i.unit}`
      : i.high === null
        ? `over ${i.low} ${i.unit}`
        : `${i.low} to ${i.high} ${i.unit}`;

function Check({ item }: { item: CheckItem }) {
  const { project, edit, light } = useProject();
  const entry = project.bench.find((b) => b.list === "checks" && b.id === item.id);
  const [text, setText] = useState(entry?.reading ?? "");
  const [verdict, setVerdict] = useState<{ ok: boolean; says: string } | null>(null);
  const store = (done: boolean, reading: string) =>
    void edit({
      type: "tick",
      list: "checks",
      id: item.id,
      done,
      at: new Date().toISOString(),
      ...(reading && { reading }),
    });
  const judge = async () => {
    if (!text.trim()) return setVerdict(null);
    const v = await core().reading(item, text);
    setVerdict(v);
    if (text !== entry?.reading || v.ok !== entry.done) store(v.ok, text.trim());
  };
  return (
    <tr onMouseEnter={() => light([item.from, item.to])} onMouseLeave={() => light([])}>
      <td className="w-9">
        <Tick checked={entry?.done ?? false} says={`${item.what}: done`} change={(v) => store(v, text.trim())} />
      </td>
      <td>
        {item.what}
        <span className="block text-sm text-soft">{item.why}</span>
      </td>
      <td className="num">
        {item.from}
        {item.to && <span className="block">{item.to}</span>}
      </td>
      <td className="num">{wanted(item)}</td>
      <td className="w-56">
        <input
          className="num w-28"
          value={text}
          placeholder={item.unit === "V" ? "3.28" : item.unit === "Ω" ? "0.3 or OL" : "80"}
          aria-label={`Reading for ${item.what}`}
          onChange={(e) => setText(e.target.value)}
          onBlur={() => void judge()}
          onKeyDown={(e) => e.key === "Enter" && void judge()}
        />{" "}
        {verdict && <span className={verdict.ok ? "text-good" : "font-bold text-stop"}>{verdict.says}</span>}
      </td>
    </tr>
  );
}

/** Bench: what to measure before and after power, with what a sound build shows. */
export function Bench() {
  const { view } = useProject();
  return (
    <>
      <StationTitle
        name="Bench"
        says="Measure before the power goes on. Type what the meter shows, or tick what beeps."
      />
      {view.verdict.counts.stop > 0 && (
        <p className="mt-2 border-l-4 border-stop pl-3 font-bold text-stop">
          Do not power this plan: read the stops in the ledger first.
        </p>
      )}
      {(["before power", "after power"] as const).map((when) => {
        const items = view.checks.filter((c) => c.when === when);
        return items.length ? (
          <section key={when} className="mt-3" aria-label={when}>
            <h2 className="text-lg">
              {when === "before power" ? "Before power" : "After power"}{" "}
              <span className="text-base font-normal text-soft">
                {when === "before power"
                  ? "everything unplugged, meter on beep"
                  : "plug in; if anything gets hot or smells, unplug at once"}
              </span>
            </h2>
            <table className="plain">
              <thead>
                <tr>
                  <th>
                    <span className="sr-only">done</span>
                  </th>
                  <th>check</th>
                  <th>between</th>
                  <th>should be</th>
                  <th>reads</th>
                </tr>
              </thead>
              <tbody>
                {items.map((i) => (
                  <Check key={i.id} item={i} />
                ))}
              </tbody>
            </table>
          </section>
        ) : null;
      })}
      {!view.checks.length && <p className="mt-4">No wires yet, so nothing to measure. Plan the pins first.</p>}
    </>
  );
}
