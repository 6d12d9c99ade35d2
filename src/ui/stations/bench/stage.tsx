"use client";
import { ChevronLeft, ChevronRight } from "lucide-react";
import { useEffect, useRef, useState, type ReactNode } from "react";
import type { CheckItem } from "@/core/bench";
import { Tick } from "@/ui/shared/tick";
import { speak } from "./aloud";
import { CheckCard } from "./check-card";
import { useReadings, type Judged } from "./readings";
import { readingWords, wanted } from "./words";

const STATE = { open: "", good: "as it should be", off: "off" } as const;

/** The rest of the stage, a line a check: any of them can be turned to. */
function Rest({ items, now, turn }: { items: readonly CheckItem[]; now: string | undefined; turn(id: string): void }) {
  const { entries, stateOf, store } = useReadings();
  return (
    <ul className="mt-4 border-t border-line" aria-label="Checks of this stage">
      {items.map((i) => {
        const s = stateOf(i);
        const reading = entries.get(i.id)?.reading ?? "";
        return (
          <li
            key={i.id}
            className={`flex items-center gap-3 border-b border-line py-1 ${i.id === now ? "bg-wash" : ""}`}
          >
            {i.unit === "word" || s === "off" ? (
              <span className="w-7 shrink-0 text-center" aria-hidden>
                {s === "good" ? "✓" : s === "off" ? "✗" : ""}
              </span>
            ) : (
              <Tick
                checked={s === "good"}
                says={`${i.what}: done`}
                change={(v) => void store(i, v, v ? reading : "")}
              />
            )}
            <button className="min-w-0 grow text-left" aria-current={i.id === now} onClick={() => turn(i.id)}>
              {i.what}
              {i.id !== now && s === "open" && <span className="ml-2 text-sm text-soft">{wanted(i)}</span>}
            </button>
            <span
              className={`num text-right text-sm ${s === "off" ? "font-bold text-stop" : s === "good" ? "text-good" : ""}`}
            >
              {readingWords(reading) || STATE[s]}
              {reading && s === "off" ? ": off" : ""}
            </span>
          </li>
        );
      })}
    </ul>
  );
}

/** A stage of checks, one at a time: the next one large, the others in reach. */
export function Stage({
  items,
  says,
  aloud,
  findOut,
  children,
}: {
  items: readonly CheckItem[];
  says: ReactNode;
  aloud: boolean;
  findOut(): void;
  children?: ReactNode;
}) {
  const { stateOf } = useReadings();
  const [asked, setAsked] = useState<string | null>(null);
  const [last, setLast] = useState<{ what: string; v: Judged } | null>(null);
  const touched = useRef(false);
  const next = items.find((i) => stateOf(i) === "open");
  const now = items.find((i) => i.id === asked) ?? next;
  const place = now ? items.indexOf(now) : -1;
  const off = items.filter((i) => stateOf(i) === "off");
  const turn = (id: string | undefined) => {
    touched.current = true;
    setAsked(id ?? null);
  };
  const what =
    now && `${now.what}. ${now.from.includes(".") ? `Between ${now.from} and ${now.to}: ` : ""}${wanted(now)}.`;
  useEffect(() => {
    if (aloud && what) speak(`${last ? `${last.v.says}. ` : ""}${what}`);
    // A new verdict comes with a new check: both are said at once.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [aloud, what]);
  return (
    <div className="mt-3">
      <p className="text-soft">{says}</p>
      <p role="status" className={`mt-1 min-h-6 font-bold ${last && !last.v.ok ? "text-stop" : "text-good"}`}>
        {last && `${last.what}: ${last.v.says}`}
      </p>
      {off.length > 0 && (
        <div className="mb-3 border-l-4 border-stop pl-3" data-testid="off">
          <p className="font-bold text-stop">
            {off.length === 1 ? "One reading is" : `${off.length} readings are`} not as it should be:{" "}
            {off.map((i) => i.what).join("; ")}.
          </p>
          <button className="btn-main mt-1" onClick={findOut}>
            Find out why
          </button>
        </div>
      )}
      {now ? (
        <>
          <CheckCard
            item={now}
            autoFocus={touched.current}
            head={
              <>
                Check {place + 1} of {items.length}
                <button
                  className="quiet ml-3 inline-flex items-center align-bottom disabled:opacity-40"
                  disabled={place < 1}
                  onClick={() => turn(items[place - 1]?.id)}
                >
                  <ChevronLeft size={16} aria-hidden /> back
                </button>
                <button
                  className="quiet ml-3 inline-flex items-center align-bottom disabled:opacity-40"
                  disabled={place >= items.length - 1}
                  onClick={() => turn(items[place + 1]?.id)}
                >
                  skip <ChevronRight size={16} aria-hidden />
                </button>
              </>
            }
            answered={(v) => {
              setLast({ what: now.what, v });
              // What was turned to by hand goes on to what is open.
              turn(undefined);
            }}
          />
        </>
      ) : (
        <p className="border-l-4 border-good pl-3 font-bold text-good">
          {off.length ? "All of this stage is read." : "All of this stage is as it should be."}
        </p>
      )}
      {children}
      <Rest items={items} now={now?.id} turn={turn} />
    </div>
  );
}
