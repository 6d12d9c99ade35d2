"use client";
import { Progress } from "radix-ui";
import { useEffect, useState } from "react";
import { formatSI } from "@/core/quantity/units";
import { OpenFile } from "@/ui/shared/open-file";
import { PointField } from "@/ui/shared/point-field";
import { core } from "@/ui/state/core";
import { light } from "@/ui/state/lit";
import { useProject } from "@/ui/state/project";
import type { CaptureTold } from "@/workers/stations/capture";

const ASK_EVERY_MS = 200;

const MARK = (ok: boolean | null) => (ok === null ? "can't tell" : ok ? "as planned" : "not as planned");
const TONE = (ok: boolean | null) => (ok === null ? "text-soft" : ok ? "text-good" : "font-bold text-stop");

/** A logic analyser's capture held against the plan. */
export function CaptureView() {
  const { project } = useProject();
  const [told, setTold] = useState<CaptureTold | null>(null);
  const [problem, setProblem] = useState("");
  const [share, setShare] = useState<number | null>(null);
  const [map, setMap] = useState<Record<string, string>>({});
  const reading = share !== null;
  useEffect(() => {
    if (!reading) return;
    const id = setInterval(
      () =>
        void core()
          .captureShare()
          .then((s) => setShare((now) => (now === null ? null : s))),
      ASK_EVERY_MS,
    );
    return () => clearInterval(id);
  }, [reading]);
  const open = async (file: File | undefined) => {
    if (!file) return;
    setProblem("");
    setTold(null);
    setMap({});
    setShare(0);
    const a = await core().capture(project, file);
    setShare(null);
    if (a.ok) setTold(a.told);
    else setProblem(a.why);
  };
  const again = (next: Record<string, string>) =>
    void core()
      .captureAs(project, next)
      .then((t) => t && setTold(t));
  return (
    <div className="mt-3" data-testid="capture">
      <p className="text-soft">
        A capture (VCD, or a CSV with a column of times) is held against the plan: who answers on a bus, its clock and
        mode, the rate of a serial line, the shape of pulses. Nothing leaves this machine.
      </p>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <OpenFile says="Open a capture" label="Capture file" accept=".vcd,.csv,.txt,text/csv,text/plain" open={open} />
        {reading && (
          <>
            <Progress.Root
              value={Math.round((share ?? 0) * 100)}
              aria-label="Read so far"
              className="h-2 w-48 border border-line bg-wash"
            >
              <Progress.Indicator className="block h-full bg-accent" style={{ width: `${(share ?? 0) * 100}%` }} />
            </Progress.Root>
            <button className="btn" onClick={() => void core().captureStop()}>
              Stop
            </button>
          </>
        )}
      </div>
      {problem && (
        <p role="alert" className="mt-2 font-bold text-stop">
          {problem}
        </p>
      )}
      {told && (
        <>
          <h2 className="mt-3 text-lg">
            {told.name} <span className="text-base font-normal text-soft">{formatSI(told.span_s, "s")}</span>
          </h2>
          {[...told.says, ...told.problems].map((s) => (
            <p key={s}>{s}</p>
          ))}
          <ul aria-label="Compared with the plan" className="border-t border-line">
            {told.compared.map((x, i) => (
              <li
                key={i}
                className="border-b border-line py-1"
                onMouseEnter={() => light(x.at)}
                onMouseLeave={() => light([])}
              >
                <span className={TONE(x.ok)}>{MARK(x.ok)}</span> <strong>{x.about}</strong>: {x.says}
              </li>
            ))}
            {!told.compared.length && (
              <li className="py-1">
                No bus or line of the plan has all its channels here: say below what each probe is at.
              </li>
            )}
          </ul>
          <h3 className="mt-3 font-bold">Channels</h3>
          <ul aria-label="Channels">
            {told.channels.map((c) => (
              <li key={c.name} className="flex flex-wrap items-end gap-3 border-b border-line py-1">
                <span className="num w-32 truncate">{c.name}</span>
                <span className="w-36 text-sm text-soft">{c.changes.toLocaleString("en")} changes</span>
                {c.net !== null && !map[c.name] ? (
                  <span className="num">{c.net}</span>
                ) : (
                  <span className="w-64">
                    <PointField
                      label={`Probe of ${c.name} is at`}
                      value={map[c.name] ?? ""}
                      set={(t) => setMap((m) => ({ ...m, [c.name]: t }))}
                      done={() => again(map)}
                    />
                  </span>
                )}
              </li>
            ))}
          </ul>
          {told.channels.some((c) => c.net === null || map[c.name]) && (
            <button className="btn mt-2" onClick={() => again(map)}>
              Compare again
            </button>
          )}
        </>
      )}
    </div>
  );
}
