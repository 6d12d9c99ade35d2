"use client";
import { useState } from "react";
import type { WireAsk } from "@/core/wires";
import { useProject } from "@/ui/state/project";
import { PointField } from "./point-field";
import { Consequence } from "./told";
import { useAct } from "./use-told";
import { Select } from "@/ui/shared/select";
import { Fold } from "@/ui/shared/fold";

type Kind = "turn" | "other row" | "swap";
const KINDS: { id: Kind; name: string }[] = [
  { id: "swap", name: "two wires are swapped" },
  { id: "turn", name: "a plug sits the wrong way round" },
  { id: "other row", name: "a part's wires are in the other row" },
];

/** What was built differently: the plan follows, the program with it, and ticks of untouched wires stay. */
export function Built() {
  const { view } = useProject();
  const [kind, setKind] = useState<Kind>("swap");
  const [ref, setRef] = useState("");
  const [one, setOne] = useState("");
  const [other, setOther] = useState("");
  const parts = view.parts.filter((p) => !p.isHost);
  const ask: WireAsk | null =
    kind === "swap"
      ? one.trim() && other.trim()
        ? { do: "swap", from: one, to: other }
        : null
      : ref
        ? { do: kind, ref }
        : null;
  const { told, go } = useAct(
    ask,
    (did) => `The plan follows: ${did}.`,
    () => {
      setRef("");
      setOne("");
      setOther("");
    },
  );
  return (
    <Fold className="mt-4" heading title="It is built differently">
      <p className="text-sm text-soft">
        For one wire, say at its row where it really is. The plan, the program and the sheet follow what is built.
      </p>
      <form
        className="mt-2 flex flex-wrap items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          go();
        }}
      >
        <label className="text-sm">
          What is so
          <Select<Kind>
            label="What is so"
            className="flex!"
            value={kind}
            options={KINDS.map((k) => ({ value: k.id, name: k.name }))}
            onChange={setKind}
          />
        </label>
        {kind === "swap" ? (
          <>
            <PointField label="one point" value={one} set={setOne} />
            <PointField label="the other" value={other} set={setOther} done={go} />
          </>
        ) : (
          <label className="text-sm">
            Part
            <Select
              label="Part"
              className="flex!"
              value={ref}
              options={parts.map((p) => ({ value: p.ref, name: `${p.ref} ${p.label === p.ref ? p.name : p.label}` }))}
              onChange={setRef}
            />
          </label>
        )}
        <button className="btn-main" disabled={!told?.ok}>
          So it is built
        </button>
      </form>
      {told?.ok && <p className="mt-1">{told.says}.</p>}
      <Consequence told={told} />
    </Fold>
  );
}
