"use client";
import { useEffect, useState } from "react";
import type { Drawing } from "@/core/drawing";
import type { RoomView } from "@/server/rooms";
import { DrawingView } from "@/ui/shared/drawing";
import { core } from "@/ui/state/core";

/** A card for each bench: its letters, and a code that opens its page. */
export function Codes({ room }: { room: RoomView }) {
  const [drawn, setDrawn] = useState<Record<string, Drawing | null>>({});
  const [base, setBase] = useState("");
  useEffect(() => {
    const { port, hostname, origin } = window.location;
    const own = room.lan && ["127.0.0.1", "localhost"].includes(hostname) ? room.addresses[0] : undefined;
    setBase(own ? `http://${own}${port ? `:${port}` : ""}` : origin);
  }, [room.lan, room.addresses]);
  const codes = room.benches.map((b) => b.code).join();
  useEffect(() => {
    if (!base) return;
    void Promise.all(codes.split(",").map(async (c) => [c, await core().linkCode(`${base}/bench/${c}`)] as const)).then(
      (list) => setDrawn(Object.fromEntries(list)),
    );
  }, [base, codes]);
  return (
    <section aria-label="Codes" className="mt-3">
      <p className="print:hidden">
        Benches open <span className="num font-bold">{base}/bench</span> and type their letters, or photograph their
        card.{" "}
        {!room.lan && (
          <span className="text-risk">
            This copy is open to this machine alone: start it with --lan, so that the benches reach it.
          </span>
        )}{" "}
        <button className="btn" onClick={() => window.print()}>
          Print the cards
        </button>
      </p>
      <ul className="mt-2 grid grid-cols-3 gap-3 md:grid-cols-6 print:grid-cols-4">
        {room.benches.map((b) => (
          <li key={b.n} className="break-inside-avoid border border-line p-2 text-center">
            <span className="block">Bench {b.n}</span>
            {drawn[b.code] && (
              <span className="as-printed block p-1">
                <DrawingView drawing={drawn[b.code]!} says={`Code of bench ${b.n}`} className="w-full" />
              </span>
            )}
            <span className="num block text-xl tracking-widest">{b.code}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
