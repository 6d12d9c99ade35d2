"use client";
import { useState } from "react";
import { toast } from "sonner";
import type { RunRow } from "@/core/build/runsheet";
import type { WireAsk } from "@/core/wires";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";
import { PointField } from "./point-field";
import { Consequence } from "./told";
import { useTold } from "./use-told";
import { Select } from "@/ui/shared/select";

/** At a step of the run sheet: the wire is really somewhere else. Plan, program and sheet follow; other ticks stay. */
export function Elsewhere({ row }: { row: RunRow }) {
  const { project, run } = useProject();
  const [open, setOpen] = useState(false);
  const [end, setEnd] = useState<"from" | "to">("to");
  const [really, setReally] = useState("");
  const link = project.links.find(
    (l) => (l.from === row.from && l.to === row.to) || (l.from === row.to && l.to === row.from),
  );
  if (!link) return null;
  const [kept, moved] = end === "to" ? [row.from, row.to] : [row.to, row.from];
  const ask: WireAsk | null = really.trim() ? { do: "really", from: kept, to: moved, really } : null;
  return (
    <div className="basis-full pb-2 pl-12">
      {!open ? (
        <button className="quiet text-sm" onClick={() => setOpen(true)}>
          it is wired differently
        </button>
      ) : (
        <Ask
          ask={ask}
          done={(says) => {
            toast(`The plan follows: ${says}.`);
            setOpen(false);
            setReally("");
          }}
          cancel={() => setOpen(false)}
          run={(a) => run((p) => core().doWire(p, a))}
        >
          <label className="text-sm">
            The end that is elsewhere
            <Select<"from" | "to">
              label="The end that is elsewhere"
              className="flex!"
              value={end}
              options={[
                { value: "to", name: row.to },
                { value: "from", name: row.from },
              ]}
              onChange={setEnd}
            />
          </label>
          <PointField label="it is really at" value={really} set={setReally} />
        </Ask>
      )}
    </div>
  );
}

function Ask({
  ask,
  children,
  done,
  cancel,
  run,
}: {
  ask: WireAsk | null;
  children: React.ReactNode;
  done(says: string): void;
  cancel(): void;
  run(a: WireAsk): Promise<unknown>;
}) {
  const told = useTold(ask);
  const go = () => {
    if (ask && told?.ok) void run(ask).then((s) => s && done(told.says));
  };
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        go();
      }}
    >
      <div className="flex flex-wrap items-end gap-3">
        {children}
        <button className="btn-main" disabled={!told?.ok}>
          It is there
        </button>
        <button type="button" className="btn" onClick={cancel}>
          Leave it
        </button>
      </div>
      {told?.ok && <p className="mt-1">{told.says}.</p>}
      <Consequence told={told} />
    </form>
  );
}
