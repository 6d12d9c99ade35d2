"use client";
import { memo, useMemo, useRef, useState } from "react";
import type { CheckItem } from "@/core/bench";
import type { Project } from "@/core/project";
import { Place } from "@/ui/shared/place";
import { SaveField } from "@/ui/shared/save-field";
import { Tick } from "@/ui/shared/tick";
import { StationTitle } from "@/ui/shared/title";
import { InView, useVirtualRows } from "@/ui/shared/virtual";
import { core } from "@/ui/state/core";
import { light } from "@/ui/state/lit";
import { useActions, useProject } from "@/ui/state/project";
import { Hidden } from "@/ui/shared/hidden";

const wanted = (i: CheckItem) =>
  i.unit === "Ω" && i.low === 0
    ? "beeps"
    : i.low === null
      ? `at most ${i.high} ${i.unit}`
      : i.high === null
        ? `over ${i.low} ${i.unit}`
        : `${i.low} to ${i.high} ${i.unit}`;

const EXAMPLES: Record<string, string> = { V: "3.28", Ω: "0.3 or OL" };

const Check = memo(function Check({
  item,
  entry,
  index,
  measure,
}: {
  item: CheckItem;
  entry: Project["bench"][number] | undefined;
  index: number;
  measure: ((node: Element | null) => void) | undefined;
}) {
  const { edit } = useActions();
  const [verdict, setVerdict] = useState<{ ok: boolean; says: string } | null>(null);
  const reading = entry?.reading ?? "";
  const store = (done: boolean, text: string) =>
    void edit({
      type: "tick",
      list: "checks",
      id: item.id,
      done,
      at: new Date().toISOString(),
      ...(text && { reading: text }),
    });
  const judge = async (text: string) => {
    if (!text) return setVerdict(null);
    const v = await core().reading(item, text);
    setVerdict(v);
    if (text !== entry?.reading || v.ok !== entry.done) store(v.ok, text);
  };
  return (
    <tr
      ref={measure}
      data-index={index}
      onMouseEnter={() => light([item.from, item.to])}
      onMouseLeave={() => light([])}
    >
      <td className="w-9">
        <Tick checked={entry?.done ?? false} says={`${item.what}: done`} change={(v) => store(v, reading)} />
      </td>
      <td>
        {item.what}
        <span className="block text-sm text-soft">{item.why}</span>
      </td>
      <td className="num">
        <Place of={item.from} />
        {item.to && <Place of={item.to} className="block" />}
      </td>
      <td className="num">{wanted(item)}</td>
      <td className="w-56 max-sm:w-auto">
        <SaveField
          label={`Reading for ${item.what}`}
          hideLabel
          always
          fieldClass="num w-28"
          value={reading}
          schema={(s) => s.trimmed}
          placeholder={EXAMPLES[item.unit] ?? "80"}
          save={(text) => void judge(text)}
        />{" "}
        {verdict && (
          <span role="status" className={verdict.ok ? "text-good" : "font-bold text-stop"}>
            {verdict.says}
          </span>
        )}
      </td>
    </tr>
  );
});

const WHEN = [
  { id: "before power", title: "Before power", says: "everything unplugged, meter on beep" },
  { id: "after power", title: "After power", says: "plug in; if anything gets hot or smells, unplug at once" },
] as const;
const CHECK_PX = 56;

function Checks({ when, items }: { when: (typeof WHEN)[number]; items: readonly CheckItem[] }) {
  const { bench } = useProject().project;
  const entries = useMemo(() => new Map(bench.filter((b) => b.list === "checks").map((b) => [b.id, b])), [bench]);
  const body = useRef<HTMLTableSectionElement>(null);
  const rows = useVirtualRows(body, items.length, CHECK_PX, { beyond: 100, keyOf: (i) => items[i]!.id });
  return (
    <section className="mt-3" aria-label={when.id}>
      <h2 className="text-lg">
        {when.title} <span className="text-base font-normal text-soft">{when.says}</span>
      </h2>
      <table className="plain bench-table">
        <thead>
          <tr>
            <th>
              <Hidden>done</Hidden>
            </th>
            <th>check</th>
            <th>between</th>
            <th>should be</th>
            <th>reads</th>
          </tr>
        </thead>
        <tbody ref={body}>
          <InView rows={rows} as="tr">
            {(i) => {
              const item = items[i]!;
              return <Check key={item.id} item={item} entry={entries.get(item.id)} index={i} measure={rows.measure} />;
            }}
          </InView>
        </tbody>
      </table>
    </section>
  );
}

/** Bench: what to measure before and after power, with what a sound build shows. */
export function Bench() {
  const { view } = useProject();
  const { checks } = view;
  const groups = useMemo(
    () => WHEN.map((when) => ({ when, items: checks.filter((c) => c.when === when.id) })).filter((g) => g.items.length),
    [checks],
  );
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
      {groups.map((g) => (
        <Checks key={g.when.id} when={g.when} items={g.items} />
      ))}
      {!checks.length && <p className="mt-4">No wires yet, so nothing to measure. Plan the pins first.</p>}
    </>
  );
}
