"use client";
import Link from "next/link";
import { useCallback, useEffect, useRef, useState } from "react";
import { toast } from "sonner";
import type { Project } from "@/core/project";
import type { Tell } from "@/core/room";
import { urgency } from "@/core/room/state";
import type { RoomBench, RoomView } from "@/server/rooms";
import { Checkbox } from "@/ui/shared/checkbox";
import { fetchFile } from "@/ui/shared/fetch-file";
import { ThemeButton } from "@/ui/shared/theme";
import { core } from "@/ui/state/core";
import { http } from "@/ui/state/http";
import { Codes } from "./codes";
import { Controls, type Level } from "./controls";
import { BenchDetails } from "./details";

const EVERY_MS = 1500;

export const minutesSince = (iso: string | null, now: string): number | null =>
  iso === null ? null : Math.max(0, (Date.parse(now) - Date.parse(iso)) / 60_000);

/** One bench in the wall of benches: where it is, for how long, what is off, who waits. */
function Card({ b, now, on, choose }: { b: RoomBench; now: string; on: boolean; choose(): void }) {
  const { state } = b;
  const stood = minutesSince(state.since, now);
  const waits = minutesSince(state.hand?.since ?? null, now);
  return (
    <li>
      <button
        className={`block w-full border px-2 py-1.5 text-left ${on ? "border-accent bg-wash" : "border-line"} ${state.hand ? "border-l-4 border-l-stop" : state.wrong.length ? "border-l-4 border-l-risk" : "border-l-4 border-l-line"}`}
        aria-pressed={on}
        data-testid={`bench-${b.n}`}
        onClick={choose}
      >
        <span className="flex items-baseline justify-between gap-2">
          <strong className="num text-xl">{b.n}</strong>
          <span className="num text-sm">
            {state.done} of {state.of}
          </span>
        </span>
        <span className="block truncate text-sm">{state.at ? state.at.title : "all steps done"}</span>
        <span className="block text-sm text-soft">
          {!b.here && state.since === null && !state.good
            ? "not here yet"
            : !b.here
              ? "not heard of"
              : stood === null
                ? "begun"
                : `${Math.floor(stood)} min at it`}
          {b.control.frozen && " · frozen"}
        </span>
        {state.hand && (
          <span className="block text-sm font-bold text-stop">
            waits {Math.floor(waits ?? 0)} min: {state.hand.why}
          </span>
        )}
        {state.wrong.length > 0 && (
          <span className="block text-sm font-bold text-risk">
            {state.wrong.length === 1 ? "a reading is off" : `${state.wrong.length} readings are off`}
          </span>
        )}
        {state.fault && (
          <span className={`block text-sm ${state.fault.found ? "text-good" : "text-soft"}`}>
            {state.fault.found ? `fault found: ${state.fault.points} points` : "fault given up"}
          </span>
        )}
      </button>
    </li>
  );
}

/** All benches of a lesson at a glance, and what can be told to them. */
export function RoomPage({ id }: { id: string }) {
  const [room, setRoom] = useState<RoomView | null>(null);
  const [gone, setGone] = useState<string | null>(null);
  const [lost, setLost] = useState(false);
  const [chosen, setChosen] = useState<number | null>(null);
  const [document, setDocument] = useState<Project | null>(null);
  const [levels, setLevels] = useState<Level[]>([]);
  const [codes, setCodes] = useState(false);
  const [sorted, setSorted] = useState(false);
  const alive = useRef(true);
  const asked = useRef<number | null>(null);
  const load = useCallback(async () => {
    const r = await http<RoomView>("GET", `/api/rooms/${id}${asked.current ? `?bench=${asked.current}` : ""}`);
    if (!alive.current) return;
    setLost(r.status === 0);
    if (r.status === 200) setRoom(r.body);
    else if (r.status !== 0) setGone((was) => was ?? r.body.message ?? "This room can't be read.");
  }, [id]);
  useEffect(() => {
    alive.current = true;
    let timer: ReturnType<typeof setTimeout>;
    const round = async () => {
      await load();
      if (alive.current) timer = setTimeout(() => void round(), EVERY_MS);
    };
    void round();
    return () => {
      alive.current = false;
      clearTimeout(timer);
    };
  }, [load]);
  useEffect(() => {
    void http<{ document: Project }>("GET", `/api/rooms/${id}/plan`).then(async (r) => {
      if (r.status !== 200) return;
      setDocument(r.body.document);
      setLevels(await core().practiceLevels(r.body.document));
    });
  }, [id]);
  const tell = async (bench: Tell["bench"], what: Tell["do"]) => {
    const r = await http("POST", `/api/rooms/${id}/tell`, { bench, do: what });
    if (r.status !== 200) toast.error(r.body.message ?? "Not told.");
    await load();
  };
  const remove = async () => {
    const r = await http("DELETE", `/api/rooms/${id}`);
    if (r.status === 200) setGone("The room and everything that was done in it is deleted.");
    else toast.error(r.body.message ?? "Not deleted.");
  };
  if (gone !== null)
    return (
      <main className="mx-auto max-w-xl px-4 py-10">
        <h1 className="text-2xl">No room here</h1>
        <p>{gone}</p>
        <Link className="underline" href="/">
          All projects
        </Link>
      </main>
    );
  if (!room) return <p className="p-6 text-soft">Opening the room…</p>;
  const list = sorted ? [...room.benches].sort((a, b) => urgency(a.state, b.state)) : room.benches;
  const bench = room.benches.find((b) => b.n === chosen) ?? null;
  const hands = room.benches.filter((b) => b.state.hand).length;
  const off = room.benches.filter((b) => b.state.wrong.length).length;
  return (
    <main className="px-5 py-4">
      <header className="flex flex-wrap items-baseline gap-x-6 gap-y-1 border-b border-ink pb-2 print:hidden">
        <h1 className="text-2xl">{room.title}</h1>
        <Link href={`/p/${room.project}/handout`} className="quiet">
          to the lesson
        </Link>
        <p role="status" className="grow">
          {lost ? (
            <span className="text-risk">The server does not answer: what you see is as it was.</span>
          ) : (
            <>
              <span className="num">{room.benches.filter((b) => b.here).length}</span> of{" "}
              <span className="num">{room.benches.length}</span> benches here ·{" "}
              <span className={hands ? "font-bold text-stop" : ""}>
                <span className="num">{hands}</span> wait
              </span>{" "}
              ·{" "}
              <span className={off ? "font-bold text-risk" : ""}>
                <span className="num">{off}</span> measured something that is off
              </span>
            </>
          )}
        </p>
        <button className="btn" aria-expanded={codes} onClick={() => setCodes(!codes)}>
          Codes for the benches
        </button>
        <button className="btn" onClick={() => void fetchFile(`/api/rooms/${id}/csv`, "The room")}>
          CSV
        </button>
        <ThemeButton />
      </header>
      {codes && <Codes room={room} />}
      <div className="mt-3 grid gap-5 lg:grid-cols-[1fr_24rem] print:hidden">
        <div>
          <Checkbox checked={sorted} onChange={setSorted} className="text-sm">
            who needs me first
          </Checkbox>
          <ul className="mt-1 grid grid-cols-2 gap-2 sm:grid-cols-4 xl:grid-cols-6" aria-label="Benches">
            {list.map((b) => (
              <Card
                key={b.n}
                b={b}
                now={room.now}
                on={b.n === chosen}
                choose={() => {
                  asked.current = b.n === chosen ? null : b.n;
                  setChosen(asked.current);
                  void load();
                }}
              />
            ))}
          </ul>
        </div>
        <aside aria-label={bench ? `Bench ${bench.n}` : "All benches"}>
          {bench ? (
            <BenchDetails key={bench.n} room={room} bench={bench} document={document}>
              <Controls bench={bench} levels={levels} tell={(d) => void tell(bench.n, d)} />
            </BenchDetails>
          ) : (
            <>
              <h2 className="border-b border-ink text-lg">All benches</h2>
              <Controls
                bench={null}
                levels={levels}
                tell={(d) => void tell("all", d)}
                frozen={room.benches.every((b) => b.control.frozen)}
              />
              <p className="mt-6 border-t border-line pt-2 text-sm text-soft">
                What the benches did stays on this machine. It holds no names.{" "}
                <button className="quiet text-stop" onClick={() => void remove()}>
                  Delete the room and all of it
                </button>
              </p>
            </>
          )}
        </aside>
      </div>
    </main>
  );
}
