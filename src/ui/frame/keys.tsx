"use client";
import { Sheet } from "@/ui/shared/dialog";
import { STATIONS } from "@/ui/stations/list";
import { STATION_KEYS } from "@/ui/stations/keys";

type Key = readonly [keys: string, says: string];

const EVERYWHERE: readonly Key[] = [
  ["Ctrl K", "find a station, part, pin, net, fix, print, setting or word"],
  ["Ctrl Z, Ctrl Shift Z", "undo, redo"],
  ["Tab, Shift Tab", "to the next field or button, and back"],
  ["Escape", "close what lies over the page"],
  ["?", "this list"],
];

function KeyList({ title, keys }: { title: string; keys: readonly Key[] }) {
  return (
    <section aria-label={title}>
      <h3 className="mt-3 border-b border-line">{title}</h3>
      <dl className="mt-1 grid grid-cols-[12rem_1fr] gap-x-4 gap-y-1">
        {keys.map(([k, says]) => (
          <div key={k} className="contents">
            <dt className="font-mono">{k}</dt>
            <dd>{says}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}

/** The keys of this station first, then those that work everywhere. */
export function Keys({ station, close }: { station: string; close(): void }) {
  const here = STATIONS.find((s) => s.id === station);
  const keys = here ? STATION_KEYS[here.id] : [];
  return (
    <Sheet title="Keys" close={close}>
      {here && keys.length > 0 && <KeyList title={`At ${here.name}`} keys={keys} />}
      <KeyList title="Everywhere" keys={EVERYWHERE} />
    </Sheet>
  );
}
