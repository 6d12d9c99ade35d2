"use client";
import { useEffect, useState, type ReactNode } from "react";
import { fieldProblem, showValue, unitOf } from "@/core/sums/address";
import type { Field, Owned, Sum, SumDone, Values } from "@/core/sums/types";
import { parseQuantity } from "@/core/quantity/units";
import { Schematic } from "./schematic";
import { Select } from "@/ui/shared/select";
import { Fold } from "@/ui/shared/fold";

const bare = (text: string, unit: string) =>
  unit && text.trim().endsWith(unit) && /[%C]$/.test(unit) ? text.trim().slice(0, -unit.length) : text;

function Entry({ field, value, set }: { field: Field; value: number; set(v: number): void }) {
  const [text, setText] = useState(showValue(value, field.unit));
  const [problem, setProblem] = useState<string | null>(null);
  // A value from elsewhere (an address, a project) is shown as it comes.
  useEffect(() => {
    setText(showValue(value, field.unit));
    setProblem(null);
  }, [value, field.unit]);
  if (field.choices)
    return (
      <Select
        label={field.label}
        value={String(value)}
        options={field.choices.map((c) => ({ value: String(c.value), name: c.label }))}
        onChange={(v) => set(Number(v))}
      />
    );
  const take = () => {
    const t = bare(text.replace(/(?<=\d)[ \u00a0](?=\d)/g, ""), field.unit);
    const q = parseQuantity(t, unitOf(field));
    const wrong = q.ok ? fieldProblem(field, q.value) : `${q.message}.`;
    setProblem(wrong);
    if (!wrong && q.ok) {
      setText(showValue(q.value, field.unit));
      set(q.value);
    }
  };
  return (
    <span className="block">
      <input
        aria-label={field.label}
        aria-invalid={problem !== null}
        className="num w-36"
        value={text}
        maxLength={40}
        inputMode="text"
        onChange={(e) => setText(e.target.value)}
        onBlur={take}
        onKeyDown={(e) => {
          if (e.key === "Enter") take();
        }}
      />
      {problem && (
        <span role="alert" className="block text-sm text-stop">
          {problem}
        </span>
      )}
    </span>
  );
}

function Result({ result, children }: { result: SumDone; children?: ReactNode }) {
  return (
    <div className="grid gap-x-8 gap-y-3 lg:grid-cols-[minmax(220px,1fr)_minmax(260px,1.2fr)]">
      <div>
        <dl aria-label="Answers">
          {result.answers.map((a) => (
            <div key={a.key} className="flex items-baseline justify-between gap-4 border-b border-line py-1">
              <dt className={a.main ? "font-bold" : "text-soft"}>{a.label}</dt>
              <dd className={`num ${a.main ? "text-2xl font-bold" : ""}`}>{showValue(a.value, a.unit)}</dd>
            </div>
          ))}
        </dl>
        {result.warnings.map((w) => (
          <p key={w} className="mt-2 border-l-2 border-risk pl-2">
            {w}
          </p>
        ))}
        {children}
        <Fold className="mt-2" title="How it is worked out">
          <ol className="mt-1 space-y-1">
            {result.steps.map((s) => (
              <li key={s} className="num text-sm">
                {s}
              </li>
            ))}
          </ol>
        </Fold>
      </div>
      <figure>
        <Schematic drawing={result.drawing} />
        <figcaption className="text-sm text-soft">{result.drawing.says}</figcaption>
      </figure>
    </div>
  );
}

/** One sum: what it asks, what comes out with a drawing, and what the part is for. */
export function Calculator({
  sum,
  values,
  set,
  owned,
  children,
}: {
  sum: Sum;
  values: Record<string, number>;
  set(key: string, v: number): void;
  owned: Owned;
  children?(result: SumDone, values: Values): ReactNode;
}) {
  const result = sum.compute(values, owned);
  return (
    <div>
      <div className="mb-3 grid gap-x-6 gap-y-2 sm:grid-cols-2 xl:grid-cols-3">
        {sum.fields.map((f) => (
          <div key={f.key}>
            <span className="block text-sm text-soft">{f.label}</span>
            <Entry field={f} value={values[f.key] ?? f.value} set={(v) => set(f.key, v)} />
          </div>
        ))}
      </div>
      {result.ok ? (
        <Result result={result}>{children?.(result, values)}</Result>
      ) : (
        <p role="alert" className="border-l-2 border-stop pl-2">
          {result.message}
        </p>
      )}
      <div className="mt-4 grid gap-x-8 gap-y-2 border-t border-line pt-2 text-sm sm:grid-cols-2">
        <p>
          <strong>What it does.</strong> {sum.does}
        </p>
        <p>
          <strong>Without it.</strong> {sum.without}
        </p>
      </div>
    </div>
  );
}
