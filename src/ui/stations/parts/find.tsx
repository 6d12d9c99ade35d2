"use client";
import { useKept } from "@/ui/state/kept";
import { useEffect, useRef, useState, type ReactNode } from "react";
import type { Part } from "@/core/parts/catalogue";
import { talkWords } from "@/core/parts/catalogue/talks";
import type { FacetName, Facets } from "@/core/parts/catalogue/search";
import type { Found } from "@/workers/api";
import { core } from "@/ui/state/core";
import { Checkbox } from "@/ui/shared/checkbox";
import { Select } from "@/ui/shared/select";
import { InView, useVirtualRows } from "@/ui/shared/virtual";
import { Label } from "@/ui/shared/label";

const LINE_PX = 32;
/** A list that fits on the screen is drawn whole. */
const FEW = 30;

const FACET_WORDS: Record<FacetName, string> = {
  group: "for",
  talks: "talks by",
  volts: "runs at",
  kind: "kind",
  solder: "soldering",
  certainty: "data",
};
const SHOWN: FacetName[] = ["group", "talks", "volts", "kind"];
const word = (f: FacetName, v: string) => (f === "volts" ? v.replace("v", " V") : f === "talks" ? talkWords(v) : v);

export type Hit = Found["parts"][number];

/** A list, the words that it answers, and the number of the question. */
interface Answer {
  found: Found;
  query: string;
  n: number;
}

function Narrow({
  found,
  facets,
  setFacets,
  owned,
}: {
  found: Found | null;
  facets: Facets;
  setFacets(f: Facets): void;
  owned: string[];
}) {
  return (
    <div className="mt-2 flex flex-wrap items-center gap-x-2 gap-y-1 text-sm">
      {SHOWN.map((f) => {
        const now = facets[f]?.[0] ?? "";
        const counts = found?.counts[f] ?? [];
        return (
          <Select
            key={f}
            label={FACET_WORDS[f]}
            className={`max-w-40 ${now ? "border-accent!" : ""}`}
            bold={!!now}
            value={now}
            options={[
              { value: "", name: `${FACET_WORDS[f]}: any` },
              ...counts.map(([v, n]) => ({ value: v, name: `${word(f, v)} (${n})` })),
              ...(now && !counts.some(([v]) => v === now) ? [{ value: now, name: `${word(f, now)} (0)` }] : []),
            ]}
            onChange={(v) => setFacets({ ...facets, [f]: v ? [v] : undefined })}
          />
        );
      })}
      <Checkbox
        checked={facets.only !== undefined}
        onChange={(on) => setFacets({ ...facets, only: on ? owned : undefined })}
      >
        only mine
      </Checkbox>
    </div>
  );
}

/** Search with narrowing, and the list of what was found. Arrows mark, Enter adds. */
export function Find({
  own,
  owned,
  marked,
  mark,
  add,
  children,
}: {
  own: readonly Part[];
  owned: Record<string, number>;
  marked: Hit | null;
  mark(h: Hit): void;
  add(h: Hit): void;
  /** What stands below the list: the marked part. */
  children?: ReactNode;
}) {
  const [query, setQuery] = useKept("find", "");
  const [facets, setFacets] = useKept<Facets>("facets", {});
  const [answer, setAnswer] = useState<Answer | null>(null);
  const found = answer?.found ?? null;
  const [broken, setBroken] = useState("");
  const asked = useRef(0);
  const list = useRef<HTMLUListElement>(null);
  // Enter adds the first hit, unless the person has pointed at another since they last typed.
  const pointed = useRef(false);
  // Enter that comes before the list shows its answer waits for it: never a part that nobody asked for.
  const entered = useRef<string | null>(null);
  const addNow = useRef(add);
  addNow.current = add;
  useEffect(() => {
    const n = ++asked.current;
    void core()
      .search(query, facets, own)
      .then(
        (r) => {
          if (n !== asked.current) return;
          setAnswer({ found: r, query, n });
          setBroken("");
        },
        (e: unknown) => setBroken(e instanceof Error ? e.message : "The catalogue can't be read."),
      );
  }, [query, facets, own]);
  useEffect(() => {
    if (!answer || answer.n !== asked.current) return;
    const first = answer.found.parts[0];
    if (entered.current === answer.query && first) addNow.current(first);
    entered.current = null;
  }, [answer]);
  // What the person owns comes first among equals of an empty query.
  const hits = found
    ? query.trim()
      ? found.parts
      : [...found.parts].sort((a, b) => Number(Boolean(owned[b.id])) - Number(Boolean(owned[a.id])))
    : [];
  const at = Math.max(
    0,
    hits.findIndex((h) => h.id === marked?.id),
  );
  const rows = useVirtualRows(list, hits.length, LINE_PX, { beyond: FEW, keyOf: (i) => hits[i]!.id });
  // A new answer begins at its top.
  const ids = found?.ids;
  const hadIds = useRef(ids);
  useEffect(() => {
    // The first one begins there anyway.
    if (hadIds.current) list.current?.scrollTo({ top: 0 });
    hadIds.current = ids;
  }, [ids]);
  const go = (i: number) => {
    const h = hits[Math.max(0, Math.min(hits.length - 1, i))];
    if (!h) return;
    pointed.current = true;
    mark(h);
    rows.show(hits.indexOf(h));
  };
  return (
    <section aria-label="Catalogue" className="min-w-0">
      <Label>
        <span className="text-soft">Find by what it does, chip, bus or voltage</span>
        <input
          className="w-full"
          value={query}
          maxLength={100}
          placeholder="temperature i2c 3.3"
          aria-controls="catalogue"
          aria-describedby="found"
          onChange={(e) => {
            pointed.current = false;
            entered.current = null;
            setQuery(e.target.value);
          }}
          onKeyDown={(e) => {
            if (e.key === "ArrowDown" || e.key === "ArrowUp") {
              e.preventDefault();
              const here = hits.some((h) => h.id === marked?.id);
              go(here ? at + (e.key === "ArrowDown" ? 1 : -1) : 0);
            }
            const target = (pointed.current ? hits.find((h) => h.id === marked?.id) : undefined) ?? hits[0];
            if (e.key !== "Enter") return;
            // By what is drawn: an answer that has come and is not drawn yet is not what the person sees.
            if (answer?.n !== asked.current || answer.query !== query) entered.current = query;
            else if (target) add(target);
          }}
        />
      </Label>
      <Narrow found={found} facets={facets} setFacets={setFacets} owned={Object.keys(owned)} />
      <p id="found" role="status" className="mt-1 text-sm text-soft" data-testid="found">
        {hits.length === 1 ? "1 part" : `${hits.length} parts`}
        {found?.partial && ": none has all these words, these have some"}
      </p>
      <ul
        id="catalogue"
        ref={list}
        aria-label="Catalogue parts"
        data-scrolls
        className={`overflow-auto border-t border-ink ${marked ? "max-h-60" : "max-h-[calc(100dvh-17rem)] min-h-40"}`}
      >
        <InView rows={rows}>
          {(i) => {
            const h = hits[i]!;
            return (
              <li
                key={h.id}
                ref={rows.measure}
                data-index={i}
                data-part={h.id}
                aria-setsize={hits.length}
                aria-posinset={i + 1}
                className={`flex h-8 items-center border-b max-sm:h-11 border-line ${h.id === marked?.id ? "bg-wash" : ""}`}
              >
                <button
                  className="min-w-0 grow truncate px-1 text-left leading-8 hover:bg-wash"
                  aria-pressed={h.id === marked?.id}
                  onClick={() => {
                    pointed.current = true;
                    mark(h);
                  }}
                  data-testid={`mark-${h.id}`}
                >
                  {h.name}
                  {h.own && <span className="ml-2 text-sm text-accent">own</span>}
                  {owned[h.id] ? <span className="num ml-2 text-sm text-good">{owned[h.id]} in the drawer</span> : null}
                  <span className="ml-2 text-sm text-soft">{h.does}</span>
                </button>
                <button
                  className="quiet shrink-0 px-2 text-sm max-sm:px-4 max-sm:py-2"
                  aria-label={`Add ${h.name}`}
                  onClick={() => add(h)}
                  data-testid={`add-${h.id}`}
                >
                  add
                </button>
              </li>
            );
          }}
        </InView>
        {broken && (
          <li role="alert" className="py-2 font-bold text-stop">
            {broken}
          </li>
        )}
        {found && hits.length === 0 && (
          <li className="py-2 text-soft">
            No part by that name. Try what it does: “distance”, “light”, “button”; or make an own part.
          </li>
        )}
      </ul>
      {children}
    </section>
  );
}
