"use client";
import { useEffect, useState } from "react";
import { toast } from "sonner";
import { readValues, startValues, writeValues } from "@/core/sums/address";
import { SUMS, sumById } from "@/core/sums/list";
import type { Owned } from "@/core/sums/types";
import { ThemeButton } from "@/ui/shared/theme";
import { http } from "@/ui/state/http";
import { Calculator } from "./calculator";
import { Checkbox } from "@/ui/shared/checkbox";

const NOTHING: Owned = { resistors_ohm: [], capacitors_F: [] };

/** The bench sums by themselves: choose one, fill in, share the address. */
export function BenchSums({ first }: { first: Record<string, string> }) {
  const [id, setId] = useState(() => sumById(first.sum ?? null)?.id ?? SUMS[0]!.id);
  const sum = sumById(id)!;
  const [start] = useState(() => readValues(sum, (k) => first[k] ?? null));
  const [all, setAll] = useState<Record<string, Record<string, number>>>({ [id]: start.values });
  const [mine, setMine] = useState<Owned | null>(null);
  const [use, setUse] = useState(false);
  const values = all[id] ?? startValues(sum);
  const query = writeValues(sum, values);
  const address = `/bench-sums?sum=${id}${query ? `&${query}` : ""}`;
  useEffect(() => window.history.replaceState(null, "", address), [address]);
  useEffect(() => {
    if (use && !mine) void http<Owned>("GET", "/api/drawer").then((r) => setMine(r.status === 200 ? r.body : NOTHING));
  }, [use, mine]);
  return (
    <main className="mx-auto max-w-6xl px-4 py-4">
      <header className="flex flex-wrap items-end justify-between gap-3 border-b border-ink pb-2">
        <div>
          <p className="text-sm">
            <a className="underline" href="/">
              Young Lattice
            </a>
          </p>
          <h1 className="text-2xl leading-tight">Bench sums</h1>
          <p className="text-soft">
            Small calculations with a drawing. Every value is in the address: keep it or send it.
          </p>
        </div>
        <div className="flex flex-wrap items-center gap-3">
          <Checkbox checked={use} onChange={setUse}>
            values from my drawer first
          </Checkbox>
          <button
            className="btn"
            onClick={() =>
              void navigator.clipboard
                .writeText(window.location.href)
                .then(() => toast("Address copied."))
                .catch(() => toast.error("Copy the address from the browser's own line."))
            }
          >
            Copy the address
          </button>
          <ThemeButton />
        </div>
      </header>
      <div className="mt-3 grid gap-x-8 gap-y-3 md:grid-cols-[230px_1fr]">
        <nav aria-label="Sums">
          <ul>
            {SUMS.map((s) => (
              <li key={s.id}>
                <button
                  aria-current={s.id === id}
                  className={`w-full border-b border-line px-1 py-1 text-left ${s.id === id ? "bg-wash font-bold" : ""}`}
                  onClick={() => setId(s.id)}
                >
                  {s.name}
                </button>
              </li>
            ))}
          </ul>
        </nav>
        <section aria-label={sum.name} className="min-w-0">
          <h2 className="text-lg">{sum.name}</h2>
          <p className="mb-2 text-soft">{sum.says}</p>
          {start.problems.map((p) => (
            <p key={p} role="alert" className="mb-2 border-l-2 border-risk pl-2">
              In the address: {p}
            </p>
          ))}
          <Calculator
            key={id}
            sum={sum}
            values={values}
            set={(k, v) => setAll((a) => ({ ...a, [id]: { ...values, [k]: v } }))}
            owned={use && mine ? mine : NOTHING}
          />
        </section>
      </div>
    </main>
  );
}
