"use client";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useEffect, useMemo, useState } from "react";
import type { PatternRow } from "@/workers/api";
import { Problems } from "@/ui/shared/open-file";
import { ThemeButton } from "@/ui/shared/theme";
import { core } from "@/ui/state/core";
import { http } from "@/ui/state/http";
import { PatternDetails } from "./details";

/** Small projects that are sound as they stand: look at one, choose board and headers, begin with it. */
export function Patterns() {
  const router = useRouter();
  const [rows, setRows] = useState<PatternRow[]>([]);
  const [chosen, setChosen] = useState<string | null>(null);
  const [filter, setFilter] = useState("");
  const [error, setError] = useState<string[]>([]);
  useEffect(() => {
    void core().patterns().then(setRows);
  }, []);
  const shown = useMemo(() => {
    const words = filter.toLowerCase().split(/\s+/).filter(Boolean);
    return rows.filter((r) => {
      const text = `${r.title} ${r.goal} ${r.learns}`.toLowerCase();
      return words.every((w) => text.includes(w));
    });
  }, [rows, filter]);
  const begin = async (document: object) => {
    setError([]);
    const r = await http<{ id: string }>("POST", "/api/projects", { document });
    if (r.status === 201) router.push(`/p/${r.body.id}/wiring`);
    else setError([r.body.message ?? "That did not work."]);
  };
  const now = chosen ?? shown[0]?.id ?? null;
  return (
    <main className="mx-auto max-w-6xl px-6 py-8">
      <div className="flex items-start justify-between">
        <div>
          <Link href="/" className="quiet">
            Young Lattice
          </Link>
          <h1 className="text-3xl">Patterns</h1>
          <p className="max-w-xl text-soft">
            Small projects that are sound as they stand. Take one, build it, then go on from it.
          </p>
        </div>
        <ThemeButton />
      </div>
      <Problems lines={error} />
      <div className="mt-5 grid gap-8 md:grid-cols-[22rem_1fr]">
        <div>
          <input
            aria-label="Filter patterns"
            placeholder="what it has or teaches: servo, display, bus"
            className="w-full"
            value={filter}
            onChange={(e) => {
              setFilter(e.target.value);
              setChosen(null);
            }}
          />
          <ul className="mt-2 border-t border-ink" aria-label="Patterns">
            {shown.map((r) => (
              <li key={r.id} className="border-b border-line">
                <button
                  className={`block w-full py-1.5 pl-2 text-left ${r.id === now ? "border-l-4 border-accent font-bold" : "border-l-4 border-transparent hover:text-accent"}`}
                  aria-pressed={r.id === now}
                  onClick={() => setChosen(r.id)}
                >
                  {r.title}
                  <span className="block text-sm font-normal text-soft">{r.learns}</span>
                </button>
              </li>
            ))}
          </ul>
          {rows.length > 0 && !shown.length && <p className="mt-2">No pattern has all of these words.</p>}
        </div>
        {now && <PatternDetails key={now} id={now} begin={(d) => void begin(d)} />}
      </div>
    </main>
  );
}
