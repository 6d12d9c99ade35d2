"use client";
import { useEffect, useState } from "react";
import type { CheckItem } from "@/core/bench";
import { Place } from "@/ui/shared/place";
import { SaveField } from "@/ui/shared/save-field";
import { light } from "@/ui/state/lit";
import { useProject } from "@/ui/state/project";
import { Probes } from "./probes";
import { useReadings, type Judged } from "./readings";
import { answersTo, EXAMPLES, plainReading, wanted } from "./words";

/** One check, large: where the probes go, what must show, and what it shows. What is answered is judged at once. */
export function CheckCard({
  item,
  head,
  answered,
  autoFocus,
}: {
  item: CheckItem;
  head: React.ReactNode;
  answered(v: Judged): void;
  autoFocus?: boolean;
}) {
  const { view } = useProject();
  const { entries, answer } = useReadings();
  const [refused, setRefused] = useState<string | null>(null);
  const reading = plainReading(entries.get(item.id)?.reading ?? "");
  useEffect(() => {
    light([item.from, item.to].filter(Boolean));
    return () => light([]);
  }, [item.from, item.to]);
  const give = async (text: string) => {
    if (!text.trim()) return;
    const v = await answer(item, text);
    const no = !v.ok && /is not a reading|says nothing about this/.test(v.says);
    setRefused(no ? v.says : null);
    if (!no) answered(v);
  };
  const keys = answersTo(item);
  return (
    <section aria-label="Check" data-testid="check-now" className="border-l-4 border-accent pl-4">
      <p className="text-sm text-soft">{head}</p>
      <h2 className="text-xl leading-snug" data-testid="check-what">
        {item.what}
      </h2>
      {item.from.includes(".") && <Probes from={item.from} to={item.to} />}
      <p className="mt-2">
        {item.from.includes(".") ? (
          <>
            <span className="text-soft">between</span> <Place of={item.from} className="num font-bold" />{" "}
            <span className="text-soft">and</span> <Place of={item.to} className="num font-bold" />
            <span className="text-soft">: </span>
          </>
        ) : (
          <span className="text-soft">should be: </span>
        )}
        <strong>{item.q?.kind === "plan" ? `the letters ${view.fingerprint} in its first line` : wanted(item)}</strong>
        <span className="block text-sm text-soft">{item.why}</span>
      </p>
      <div className="mt-3 flex flex-wrap items-center gap-2 max-sm:sticky max-sm:bottom-0 max-sm:bg-sheet max-sm:py-2">
        {keys.map((k) => (
          <button key={k.text} className="btn min-h-12 px-5! text-lg" onClick={() => void give(k.text)}>
            {k.says}
          </button>
        ))}
        {(item.unit !== "word" || item.q?.kind === "scan") && (
          <SaveField
            key={item.id}
            label={`Reading for ${item.what}`}
            hideLabel
            always
            {...(autoFocus && { autoFocus })}
            fieldClass="num min-h-12 w-40 text-2xl!"
            value={reading}
            schema={(s) => s.trimmed}
            placeholder={item.q?.kind === "scan" ? "0x3c, 0x76" : EXAMPLES[item.unit]}
            save={(text) => void give(text)}
            unit={item.unit === "beep" ? "Ω" : item.unit === "word" ? "" : item.unit}
            numeric={item.unit !== "beep" && item.unit !== "word"}
          />
        )}
      </div>
      {refused && (
        <p role="alert" className="mt-1 font-bold text-stop">
          {refused}
        </p>
      )}
    </section>
  );
}
