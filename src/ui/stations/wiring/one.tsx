"use client";
import { Dialog as Radix, Progress } from "radix-ui";
import { ArrowLeft, ArrowRight, Check, X } from "lucide-react";
import { phaseById } from "@/core/build/runsheet/phases";
import type { RunRow } from "@/core/build/runsheet";
import { Swatch } from "@/ui/shared/wire-colours";
import { isWork, wireWords } from "./row";
import { Hidden } from "@/ui/shared/hidden";

/** One end of the wire, large enough for the far wall or a phone on the bench. */
function End({ says, end, words, kind }: { says: string; end: string; words: string; kind: string }) {
  return (
    <div className="border-t border-line py-2">
      <p className="text-soft">
        {says}
        {kind && kind !== "plug" ? `, ${kind} end` : ""}
      </p>
      <p className="num text-[clamp(1.5rem,5.5vw,3.2rem)] leading-tight font-bold break-words">{end}</p>
      {words !== end && <p className="text-[clamp(1rem,2.6vw,1.6rem)] leading-snug">{words}</p>}
    </div>
  );
}

/** One step at a time over the whole screen: read it, do it, tick it with a thumb, Enter or Space, and the next one is there. */
export function OneAtATime({
  rows,
  at,
  done,
  go,
  tick,
  close,
}: {
  rows: RunRow[];
  at: RunRow;
  done: ReadonlySet<string>;
  go(r: RunRow): void;
  tick(r: RunRow, v: boolean): void;
  close(): void;
}) {
  const k = rows.indexOf(at);
  const move = (n: number) => rows[k + n] && go(rows[k + n]!);
  const isDone = done.has(at.id);
  const finish = () => {
    if (!isDone) tick(at, true);
    const next = rows.slice(k + 1).find((r) => !done.has(r.id)) ?? rows.find((r) => !done.has(r.id) && r !== at);
    if (next) go(next);
    else close();
  };
  const left = rows.filter((r) => !done.has(r.id)).length;
  return (
    <Radix.Root open onOpenChange={(o) => !o && close()}>
      <Radix.Portal>
        <Radix.Content
          aria-describedby={undefined}
          className="fixed inset-0 z-50 flex flex-col bg-sheet p-4"
          data-testid="one-step"
          onKeyDown={(e) => {
            if (e.key === "ArrowLeft") move(-1);
            else if (e.key === "ArrowRight") move(1);
          }}
        >
          <div className="flex items-start justify-between gap-4">
            <Radix.Title className="text-lg font-bold">
              Step <span className="num">{at.step}</span> of <span className="num">{rows.length}</span>:{" "}
              {phaseById(at.phase).title}
              <span className="block text-base font-normal text-soft">
                {left ? `${left} still to do` : "everything is ticked"}
                {isDone ? ", this one is done" : ""}
              </span>
            </Radix.Title>
            <button className="btn" onClick={close} aria-label="Back to the whole sheet">
              <X size={20} aria-hidden />
            </button>
          </div>
          <Progress.Root
            className="mt-2 h-1.5 w-full shrink-0 bg-line"
            max={rows.length}
            value={rows.length - left}
            aria-label="Steps done"
          >
            <Progress.Indicator
              className="h-full bg-accent"
              style={{ width: `${(100 * (rows.length - left)) / rows.length}%` }}
            />
          </Progress.Root>
          <div className="mt-2 min-h-0 grow overflow-auto">
            {isWork(at) ? (
              <p className="border-t border-line py-3 text-[clamp(1.2rem,3.4vw,2.2rem)] leading-snug">{at.note}</p>
            ) : (
              <>
                <p className="flex flex-wrap items-center gap-x-4 gap-y-1 text-[clamp(1.2rem,3.4vw,2.2rem)]">
                  {at.colour && (
                    <span className="inline-flex items-center gap-2 font-bold">
                      <Swatch colour={at.colour} size={28} />
                      {at.colour}
                    </span>
                  )}
                  <strong>{at.net}</strong>
                  <span className="num text-base text-soft">{wireWords(at)}</span>
                </p>
                <End says="From" end={at.from} words={at.fromWords} kind={at.endA} />
                <End says="To" end={at.to} words={at.toWords} kind={at.endB} />
                {at.note && <p className="border-t border-line py-2 text-lg">{at.note}.</p>}
              </>
            )}
            <p className="border-t border-line py-2 text-lg">
              <strong>Before going on:</strong> {at.check}
            </p>
            <p className="text-soft">{at.why}</p>
          </div>
          <div className="mt-2 flex gap-2">
            <button className="btn flex min-h-14 items-center px-5" disabled={k === 0} onClick={() => move(-1)}>
              <ArrowLeft aria-hidden /> <Hidden>Step before</Hidden>
            </button>
            <button
              className="btn-main flex min-h-14 grow items-center justify-center gap-2 text-lg"
              autoFocus
              onClick={finish}
            >
              <Check aria-hidden /> {isDone ? "Next open step" : left === 1 ? "Done, that was the last" : "Done, next"}
            </button>
            {isDone && (
              <button className="btn min-h-14 px-4" onClick={() => tick(at, false)}>
                Not done
              </button>
            )}
            <button
              className="btn flex min-h-14 items-center px-5"
              disabled={k === rows.length - 1}
              onClick={() => move(1)}
            >
              <ArrowRight aria-hidden /> <Hidden>Step after</Hidden>
            </button>
          </div>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
