"use client";
import Link from "next/link";
import { useEffect, useState } from "react";
import type { BenchView } from "@/core/bench/station/view";
import { Fold } from "@/ui/shared/fold";
import { Select } from "@/ui/shared/select";
import { core } from "@/ui/state/core";
import { light } from "@/ui/state/lit";
import { useActions, useProject } from "@/ui/state/project";
import { CheckCard } from "./check-card";
import { useReadings, type Judged } from "./readings";

const percent = (share: number) => (share < 0.01 ? "under 1 %" : `${Math.round(share * 100)} %`);
const SIGHTS = [
  { id: "sight hot", says: "Something gets hot or smells" },
  { id: "sight resets", says: "The board starts again by itself" },
];

const UPLOADS = [
  { value: "", name: "Uploading: works, or not tried" },
  { value: "no port", name: "Uploading: no port appears" },
  { value: "busy", name: "Uploading: the port is in use" },
  { value: "no answer", name: "Uploading: nothing answers" },
  { value: "wrong chip", name: "Uploading: another chip answers" },
] as const;

/** What was seen without a meter: each counts as an observation like any other. */
function Sights({ host }: { host: string | undefined }) {
  const { entries } = useReadings();
  const { view } = useProject();
  const { edit } = useActions();
  const list = [
    ...SIGHTS.map((s) => ({ ...s, word: "yes" })),
    ...(host ? [{ id: `console ${host}`, says: "The console stays empty", word: "silent" }] : []),
  ];
  const tell = (id: string, word: string) =>
    void edit({
      type: "tick",
      list: "checks",
      id,
      done: false,
      at: new Date().toISOString(),
      ...(word && { reading: `${word} ${view.fingerprint}` }),
    });
  const said = (id: string) => {
    const [, word, plan] = /^(.*) ([A-Z]{8})$/.exec(entries.get(id)?.reading ?? "") ?? [];
    return plan === view.fingerprint ? (word ?? "") : "";
  };
  const uploading = UPLOADS.find((u) => u.value === said(`upload ${host}`))?.value ?? "";
  return (
    <div className="mt-2 flex flex-wrap items-center gap-2" role="group" aria-label="What you notice">
      {list.map((s) => {
        const on = said(s.id) === s.word;
        return (
          <button
            key={s.id}
            className={on ? "btn-main" : "btn"}
            aria-pressed={on}
            onClick={() => tell(s.id, on ? "" : s.word)}
          >
            {s.says}
          </button>
        );
      })}
      {host && (
        <Select<(typeof UPLOADS)[number]["value"] | "none">
          label="Uploading says"
          value={uploading || "none"}
          options={UPLOADS.map((u) => ({ value: u.value || "none", name: u.name }))}
          onChange={(v) => tell(`upload ${host}`, v === "none" ? "" : v)}
        />
      )}
    </div>
  );
}

function SuspectRow({ s, mend }: { s: BenchView["suspects"][number]; mend(): void }) {
  return (
    <li className="border-b border-line py-2" onMouseEnter={() => light(s.at)} onMouseLeave={() => light([])}>
      <div className="flex items-baseline gap-3">
        <span className="num w-14 shrink-0 text-right">{percent(s.share)}</span>
        <div className="min-w-0 grow">
          <p className="font-bold">{s.says}</p>
          <div aria-hidden className="my-1 h-1 bg-wash">
            <div className="h-1 bg-accent" style={{ width: `${Math.max(1, s.share * 100)}%` }} />
          </div>
          {s.mend.map((m) => (
            <p key={m}>{m}</p>
          ))}
          {s.others.length > 0 && (
            <p className="text-sm text-soft">Nothing measured here can tell it from: {s.others.join("; ")}.</p>
          )}
          {s.id && (
            <button className="btn my-1" onClick={mend}>
              This was it, mended
            </button>
          )}
          <Fold title="Why">
            <ul className="text-sm">
              {s.for.map((x) => (
                <li key={x}>speaks for it: {x}</li>
              ))}
              {s.against.map((x) => (
                <li key={x.seen}>
                  speaks against it: {x.seen}, where this would show {x.expected}
                </li>
              ))}
              {!s.for.length && !s.against.length && <li>nothing measured so far speaks for or against it</li>}
            </ul>
          </Fold>
        </div>
      </div>
    </li>
  );
}

/** For somebody without a meter: one change at a time, and what the program's lines then mean. */
function Experiments({ list }: { list: BenchView["experiments"] }) {
  return (
    <Fold title="Without a meter: change one thing, and look" className="mt-3">
      <ol className="list-decimal pl-5" aria-label="Experiments">
        {list.map((e) => (
          <li key={e.id} className="mt-1">
            {e.does}
            <ul className="text-sm text-soft">
              {e.outcomes.slice(0, 3).map((o) => (
                <li key={o.shows}>
                  {percent(o.share)}: {o.shows}.{" "}
                  {o.mends
                    ? "That was it."
                    : `Then suspect: ${o.means.join("; ")}${o.left.length > o.means.length ? ` and ${o.left.length - o.means.length} more` : ""}.`}
                </li>
              ))}
            </ul>
          </li>
        ))}
      </ol>
    </Fold>
  );
}

/** Suspects, the next measurement, what to do. */
export function Wrong() {
  const { project, view, id } = useProject();
  const { edit } = useActions();
  const [state, setState] = useState<BenchView | null>(null);
  const [last, setLast] = useState<{ what: string; v: Judged } | null>(null);
  const [told, setTold] = useState("");
  useEffect(() => {
    let gone = false;
    void core()
      .bench(project)
      .then((b) => !gone && setState(b));
    return () => {
      gone = true;
    };
  }, [project]);
  const mend = (s: BenchView["suspects"][number]) =>
    void core()
      .mended(project, s.id, new Date().toISOString())
      .then((edits) => {
        const again = edits.length - 1;
        setTold(
          `Written down as mended. ${again === 1 ? "One reading is" : `${again} readings are`} asked again: those that it touched.`,
        );
        setLast(null);
        return edit({ type: "batch", edits });
      });
  if (!state) return <p className="mt-4 text-soft">Working out what each fault would show…</p>;
  const next = state.next;
  return (
    <div className="mt-3" data-testid="wrong">
      <p className="text-soft">
        {state.odd.length
          ? `${state.observed === 1 ? "One reading" : `${state.observed} readings`}, of which a sound build would not show: ${state.odd.map((o) => `${o.says} (sound: ${o.sound})`).join("; ")}.`
          : "Nothing read so far speaks against the build. Say what you notice, or take the measurement that tells most."}
      </p>
      <Sights host={view.hosts[0]?.ref} />
      {state.danger && (
        <p className="mt-2 border-l-4 border-stop pl-3 font-bold text-stop">
          Take the power away: some of these can destroy parts. What comes next is measured without power.
        </p>
      )}
      <p role="status" className={`mt-2 font-bold ${last && !last.v.ok ? "text-stop" : "text-good"}`}>
        {last ? `${last.what} ${last.v.says}` : told}
      </p>
      <div className="mt-3 grid gap-x-8 gap-y-4 xl:grid-cols-2">
        <div>
          {next ? (
            <CheckCard
              item={next}
              head={state.odd.length ? "What tells most now" : "What would tell most"}
              answered={(v) => (setLast({ what: next.what, v }), setTold(""))}
            />
          ) : (
            <p className="border-l-4 border-accent pl-3">
              Nothing more can be told by measuring: mend what is suspected most, then look again.
            </p>
          )}
          {state.experiments.length > 0 && <Experiments list={state.experiments} />}
          <p className="mt-3 text-sm text-soft">
            Wired differently on purpose?{" "}
            <Link className="quiet" href={`/p/${id}/wiring?show=wires`}>
              Say where the wire really is
            </Link>
            , and plan, program and checks follow.
          </p>
        </div>
        <div>
          <h2 className="text-lg">{state.pairs ? "No single fault explains this: two at once" : "Suspects"}</h2>
          {state.suspects.length ? (
            <ol className="border-t border-line" aria-label="Suspects">
              {state.suspects.map((s) => (
                <SuspectRow key={s.id || "none"} s={s} mend={() => mend(s)} />
              ))}
            </ol>
          ) : (
            <p className="text-soft">Nobody yet.</p>
          )}
        </div>
      </div>
    </div>
  );
}
