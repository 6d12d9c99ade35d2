"use client";
import { Progress } from "radix-ui";
import type { Room } from "@/core/firmware/memory/room";

/** Kilobytes, or bytes where there is less than one of them. */
const amount = (used: number, of: number) =>
  of < 1024 ? `about ${used} of ${of} B` : `about ${(used / 1024).toFixed(1)} of ${(of / 1024).toFixed(1)} kB`;

function Bar({ what, used, of }: { what: string; used: number; of: number }) {
  const full = used > of;
  const share = Math.min(100, Math.round((100 * used) / of));
  const says = amount(used, of);
  return (
    <div className="mt-1 text-sm">
      <p className="flex justify-between gap-2">
        <span>{what}</span>
        <span className={`num ${full ? "font-bold text-stop" : "text-soft"}`}>{says}</span>
      </p>
      <Progress.Root
        value={share}
        aria-label={what}
        getValueLabel={() => (full ? `${says}: does not fit` : says)}
        className="h-1.5 border border-line bg-paper"
      >
        <Progress.Indicator
          className={`block h-full ${full ? "bg-stop" : "bg-accent"}`}
          style={{ width: `${share}%` }}
        />
      </Progress.Root>
    </div>
  );
}

/** How much of each board's memory the larger of the two programs takes. */
export function Memory({ rooms, named }: { rooms: readonly Room[]; named: boolean }) {
  return (
    <section aria-label="Memory" className="mt-3">
      <h2 className="font-bold">Memory</h2>
      {rooms.map((r) => (
        <div key={r.host}>
          {named && <h3 className="num mt-1 text-sm">{r.host}</h3>}
          <Bar what="Program (flash)" {...r.flash} />
          <Bar what="Variables (RAM)" {...r.ram} />
        </div>
      ))}
    </section>
  );
}
