"use client";
import { useState } from "react";
import type { WireAsk } from "@/core/wires";
import { useProject } from "@/ui/state/project";
import { Consequence } from "./told";
import { useAct } from "./use-told";

/** Takes a part out of its wires: the gap is closed, or stays. */
export function TakeOut() {
  const { view } = useProject();
  const [ref, setRef] = useState("");
  const [close, setClose] = useState(true);
  const parts = view.parts.filter((p) => !p.isHost);
  const ask: WireAsk | null = ref ? { do: "take out", ref, close } : null;
  const { told, go } = useAct(
    ask,
    (did) => `${did}.`,
    () => setRef(""),
  );
  return (
    <details className="mt-4">
      <summary className="cursor-pointer text-lg font-bold">Take a part out of its wires</summary>
      <form
        className="mt-2 flex flex-wrap items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          go();
        }}
      >
        <label className="text-sm">
          Part that goes
          <select aria-label="Part that goes" className="block" value={ref} onChange={(e) => setRef(e.target.value)}>
            <option value="">choose</option>
            {parts.map((p) => (
              <option key={p.ref} value={p.ref}>
                {p.ref} {p.label === p.ref ? p.name : p.label}
              </option>
            ))}
          </select>
        </label>
        <label className="inline-flex items-center gap-2">
          <input type="checkbox" checked={close} onChange={(e) => setClose(e.target.checked)} />
          close the gap: join what hung on its two ends
        </label>
        <button className="btn-main" disabled={!told?.ok}>
          Take it out
        </button>
      </form>
      {told?.ok && <p className="mt-1">{told.says}.</p>}
      <Consequence told={told} />
    </details>
  );
}
