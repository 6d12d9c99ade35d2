"use client";
import { Sheet } from "@/ui/shared/dialog";

const KEYS: [string, string][] = [
  ["Ctrl K", "find a station, part, pin or net; apply a fix; download"],
  ["Ctrl Z, Ctrl Shift Z", "undo, redo"],
  ["?", "this list"],
  ["arrows", "in the lattice: go from crossing to crossing, reasons are read out"],
  ["Enter", "in the lattice: move the wire to this pin"],
  ["L", "in the lattice: lock or unlock the wire of this row"],
  ["Home, End", "in the lattice: first and last pin of the row"],
];

export function Keys({ close }: { close(): void }) {
  return (
    <Sheet title="Keys" close={close}>
      <dl className="mt-2 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
        {KEYS.map(([k, says]) => (
          <div key={k} className="contents">
            <dt className="font-mono">{k}</dt>
            <dd>{says}</dd>
          </div>
        ))}
      </dl>
    </Sheet>
  );
}
