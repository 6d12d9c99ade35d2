"use client";
import { useEffect, useState } from "react";
import type { ChosenPrint, PartSummary } from "@/core/parts/catalogue";
import { formatSI, parseQuantity, seriesValues } from "@/core/quantity";
import { columnsOf, Table } from "@/ui/shared/table";
import { core } from "@/ui/state/core";
import { PrintCheck } from "./print/check";
import { useDrawer } from "./use-drawer";

function Values({
  title,
  unit,
  values,
  set,
  sets,
}: {
  title: string;
  unit: "Ω" | "F";
  values: number[];
  set(v: number[]): void;
  sets: { name: string; values: number[] }[];
}) {
  const [text, setText] = useState("");
  const [problem, setProblem] = useState("");
  const sorted = (list: number[]) => [...new Set(list.map((v) => Number(v.toPrecision(6))))].sort((a, b) => a - b);
  const add = () => {
    const words = text.split(/[\s;]+|,(?=\s|$)/).filter(Boolean);
    const read = words.map((w) => parseQuantity(w, unit));
    const bad = read.findIndex((r) => !r.ok || r.value <= 0);
    if (bad >= 0) {
      const r = read[bad]!;
      return setProblem(
        r.ok ? `"${words[bad]}" is nothing that can lie in a drawer: a value is above zero` : r.message,
      );
    }
    setProblem("");
    setText("");
    set(sorted([...values, ...read.flatMap((r) => (r.ok ? [r.value] : []))]));
  };
  return (
    <section className="mt-4" aria-label={title}>
      <h2 className="text-lg">{title}</h2>
      <div className="flex flex-wrap items-center gap-2">
        <input
          aria-label={`Add ${title.toLowerCase()}`}
          className="num w-56"
          value={text}
          placeholder={unit === "Ω" ? "220 330 4k7 10k" : "100n 10u 470u"}
          onChange={(e) => setText(e.target.value)}
          onKeyDown={(e) => e.key === "Enter" && add()}
        />
        <button className="btn" onClick={add} disabled={!text.trim()}>
          Put in
        </button>
        {sets.map((s) => (
          <button key={s.name} className="quiet text-sm" onClick={() => set(sorted([...values, ...s.values]))}>
            {s.name}
          </button>
        ))}
        {values.length > 0 && (
          <button className="quiet text-sm text-soft" onClick={() => set([])}>
            take all out
          </button>
        )}
      </div>
      {problem && (
        <p role="alert" className="font-bold text-stop">
          {problem}
        </p>
      )}
      <ul className="mt-2 flex flex-wrap gap-1.5" data-testid={`values-${unit}`}>
        {values.map((v) => (
          <li key={v}>
            <button
              className="num border border-line px-2 py-0.5 hover:border-ink"
              aria-label={`Take ${formatSI(v, unit)} out`}
              onClick={() => set(values.filter((x) => x !== v))}
            >
              {formatSI(v, unit)}
            </button>
          </li>
        ))}
        {values.length === 0 && (
          <li className="text-soft">
            Nothing noted: plans use any value of the {unit === "Ω" ? "E12" : "usual"} series.
          </li>
        )}
      </ul>
    </section>
  );
}

/** The headers that were looked at, in words, by part. */
function useReadHeaders(prints: Readonly<Record<string, ChosenPrint>> | undefined): ReadonlyMap<string, string> {
  const [read, setRead] = useState(new Map<string, string>());
  const asked = JSON.stringify(prints ?? {});
  useEffect(() => {
    let gone = false;
    const all = Object.entries(JSON.parse(asked) as Record<string, ChosenPrint>).map(
      async ([id, p]): Promise<[string, string]> => {
        if (!("id" in p)) return [id, p.rows.map((r) => r.join(" ")).join(" | ")];
        const known = await core().prints(id, []);
        return [id, known?.prints.find((x) => x.id === p.id)?.text ?? ""];
      },
    );
    void Promise.all(all).then((list) => !gone && setRead(new Map(list)));
    return () => {
      gone = true;
    };
  }, [asked]);
  return read;
}

/** The drawer: what is owned. Plans prefer it, and the parts list says what is to be bought. */
export function Drawer() {
  const { drawer, put } = useDrawer();
  const reads = useReadHeaders(drawer.prints);
  const [looking, setLooking] = useState<string | null>(null);
  const [names, setNames] = useState(new Map<string, PartSummary>());
  useEffect(() => {
    void core()
      .search("", {}, [])
      .then((r) => setNames(new Map(r.parts.map((p) => [p.id, p]))));
  }, []);
  const owned = Object.entries(drawer.parts).sort(([a], [b]) => (a < b ? -1 : 1));
  return (
    <div className="mt-3">
      <p className="max-w-2xl text-soft">
        What you have. Plans take values from here when they fit, boards from here come first, and the parts list says
        what is to be bought. It is kept for your next projects too. Wire colours are chosen at Brief.
      </p>
      <Values
        title="Resistors"
        unit="Ω"
        values={drawer.resistors_ohm}
        set={(v) => void put({ resistors_ohm: v })}
        sets={[
          { name: "an E12 box, 10 Ω to 1 MΩ", values: seriesValues("E12", 10, 1e6) },
          { name: "an E6 box, 10 Ω to 1 MΩ", values: seriesValues("E6", 10, 1e6) },
        ]}
      />
      <Values
        title="Capacitors"
        unit="F"
        values={drawer.capacitors_F}
        set={(v) => void put({ capacitors_F: v })}
        sets={[{ name: "the usual four", values: [1e-7, 1e-5, 1e-4, 1e-3] }]}
      />
      <section className="mt-4" aria-label="Owned parts">
        <h2 className="text-lg">Parts</h2>
        <Table
          label="Owned parts"
          tableId="owned-parts"
          className="max-w-3xl"
          rows={owned}
          rowId={([id]) => id}
          columns={columnsOf<[string, number]>([
            { head: "part", by: ([id]) => names.get(id)?.name ?? id, show: ([id]) => names.get(id)?.name ?? id },
            {
              head: "its header",
              by: ([id]) => reads.get(id) ?? "",
              show: ([id]) => (
                <>
                  {drawer.prints?.[id] && <span className="num mr-2 text-sm">{reads.get(id)}</span>}
                  {id.startsWith("module/") && (
                    <button
                      className="quiet text-sm"
                      aria-expanded={looking === id}
                      aria-label={`${drawer.prints?.[id] ? "look again" : "look at it"}: the header of ${names.get(id)?.name ?? id}`}
                      onClick={() => setLooking(looking === id ? null : id)}
                    >
                      {drawer.prints?.[id] ? "look again" : "look at it"}
                    </button>
                  )}
                </>
              ),
            },
            {
              head: "how many",
              by: ([, n]) => n,
              look: "w-40",
              show: ([id, n]) => (
                <span className="inline-flex items-center gap-2">
                  <button
                    className="btn px-2!"
                    aria-label={`One fewer ${id}`}
                    onClick={() => void put({ parts: { [id]: n - 1 } })}
                  >
                    −
                  </button>
                  <span className="num w-8 text-center">{n}</span>
                  <button
                    className="btn px-2!"
                    aria-label={`One more ${id}`}
                    onClick={() => void put({ parts: { [id]: n + 1 } })}
                  >
                    +
                  </button>
                </span>
              ),
            },
          ])}
        />
        {looking && (
          <PrintCheck
            key={looking}
            id={looking}
            of={names.get(looking)?.name ?? looking}
            chosen={drawer.prints?.[looking]}
            save={(print) => {
              setLooking(null);
              void put({ prints: { [looking]: print } });
            }}
          />
        )}
        {owned.length === 0 && (
          <p className="text-soft">
            None noted. Mark a part at Find and press + beside “in my drawer”, or send lines of a parts list here.
          </p>
        )}
      </section>
    </div>
  );
}
