"use client";
import { useState } from "react";
import type { Tell } from "@/core/room";
import type { RoomBench } from "@/server/rooms";
import { Checkbox } from "@/ui/shared/checkbox";
import { Label } from "@/ui/shared/label";
import { Select } from "@/ui/shared/select";

export interface Level {
  id: string;
  name: string;
}

/** What the teacher can do to one bench, or to all: a hint, hands off, a fault to find, a signature. */
export function Controls({
  bench,
  levels,
  tell,
  frozen = bench?.control.frozen ?? false,
}: {
  bench: RoomBench | null;
  levels: readonly Level[];
  tell(d: Tell["do"]): void;
  frozen?: boolean;
}) {
  const [hint, setHint] = useState("");
  const [level, setLevel] = useState("");
  const [seed, setSeed] = useState(2026);
  const [each, setEach] = useState(true);
  const at = bench?.state.at;
  const now = level || (levels[0]?.id ?? "");
  return (
    <div className="space-y-3 py-2">
      {bench?.state.hand && (
        <p>
          <strong className="text-stop">Waits: {bench.state.hand.why}.</strong>{" "}
          <button className="btn" onClick={() => tell({ kind: "seen" })}>
            I was there
          </button>
        </p>
      )}
      {bench && at && /signed/.test(bench.state.hand?.why ?? "") && (
        <button className="btn-main" onClick={() => tell({ kind: "sign", step: at.id })}>
          Sign step {at.step}: {at.title}
        </button>
      )}
      <button
        className={frozen ? "btn-main" : "btn"}
        aria-pressed={frozen}
        onClick={() => tell({ kind: "freeze", on: !frozen })}
      >
        {frozen ? "Let go on" : bench ? "Hands off" : "Hands off, all"}
      </button>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          tell({ kind: "hint", text: hint.trim() });
          setHint("");
        }}
      >
        <Label className="block">
          <span className="block text-sm text-soft">A hint</span>
          <input
            className="w-full"
            maxLength={300}
            value={hint}
            placeholder="follow the black wire"
            onChange={(e) => setHint(e.target.value)}
          />
        </Label>
        <button className="btn mt-1" disabled={!hint.trim()}>
          Send it
        </button>
        {bench?.control.hint && (
          <span className="ml-2 text-sm text-soft">
            shown: “{bench.control.hint.text}”{" "}
            <button type="button" className="quiet" onClick={() => tell({ kind: "hint", text: "" })}>
              take it away
            </button>
          </span>
        )}
      </form>
      {levels.length > 0 && (
        <div>
          <p className="text-sm text-soft">A fault to find, in the simulated build</p>
          <div className="flex flex-wrap items-center gap-2">
            <Select<string>
              label="Level of the fault"
              value={now}
              options={levels.map((l) => ({ value: l.id, name: l.name }))}
              onChange={setLevel}
            />
            <input
              aria-label="Number of the fault"
              className="num w-24"
              inputMode="numeric"
              value={seed}
              onChange={(e) => setSeed(Math.min(999_999, Number(e.target.value.replace(/\D/g, "")) || 0))}
            />
            {!bench && (
              <Checkbox checked={each} onChange={setEach}>
                another for each
              </Checkbox>
            )}
            <button
              className="btn"
              onClick={() =>
                tell({ kind: "fault", fault: { level: now, seed, ...(!bench && each && { each: true }) } })
              }
            >
              Deal it
            </button>
            <button className="quiet text-sm" onClick={() => tell({ kind: "fault", fault: null })}>
              take it back
            </button>
          </div>
        </div>
      )}
    </div>
  );
}
