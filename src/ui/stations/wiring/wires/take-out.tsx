"use client";
import { useState } from "react";
import type { WireAsk } from "@/core/wires";
import { useProject } from "@/ui/state/project";
import { Consequence } from "./told";
import { useAct } from "./use-told";
import { Select } from "@/ui/shared/select";
import { Checkbox } from "@/ui/shared/checkbox";
import { Fold } from "@/ui/shared/fold";

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
    <Fold className="mt-4" heading title="Take a part out of its wires">
      <form
        className="mt-2 flex flex-wrap items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          go();
        }}
      >
        <label className="text-sm">
          Part that goes
          <Select
            label="Part that goes"
            className="flex!"
            value={ref}
            options={parts.map((p) => ({ value: p.ref, name: `${p.ref} ${p.label === p.ref ? p.name : p.label}` }))}
            onChange={setRef}
          />
        </label>
        <Checkbox checked={close} onChange={setClose}>
          close the gap: join what hung on its two ends
        </Checkbox>
        <button className="btn-main" disabled={!told?.ok}>
          Take it out
        </button>
      </form>
      {told?.ok && <p className="mt-1">{told.says}.</p>}
      <Consequence told={told} />
    </Fold>
  );
}
