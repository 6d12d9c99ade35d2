"use client";
import { useEffect, useMemo, useRef, useState, type ReactNode } from "react";
import type { Part } from "@/core/parts/catalogue";
import type { OwnDraft } from "@/core/parts/own";
import type { OwnPartCheck } from "@/workers/api";
import { HeaderDrawing } from "@/ui/shared/header-drawing";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";
import { PinsEditor } from "./pins";
import { SuppliesEditor } from "./supplies";
import { Select } from "@/ui/shared/select";
import { Fold } from "@/ui/shared/fold";

type TextKey = {
  [K in keyof OwnDraft]-?: OwnDraft[K] extends string ? K : never;
}[keyof OwnDraft];

function Step({ n, title, children }: { n: number; title: string; children: ReactNode }) {
  return (
    <section className="mt-4 border-t border-ink pt-2" aria-label={title}>
      <h2 className="text-lg">
        <span className="num mr-2 text-soft">{n}</span>
        {title}
      </h2>
      {children}
    </section>
  );
}

/** What is in the editor survives a look at another station or a closed tab, until it is saved or given up. */
function keptUnder(key: string) {
  const load = () => {
    try {
      return JSON.parse(sessionStorage.getItem(key) ?? "null") as OwnDraft | null;
    } catch {
      return null;
    }
  };
  return {
    load,
    keep: (d: OwnDraft) => {
      try {
        sessionStorage.setItem(key, JSON.stringify(d));
      } catch {
        // A full store only means that it is not kept.
      }
    },
    drop: () => sessionStorage.removeItem(key),
  };
}

/** An own part, filled in from a data sheet page, with a live check of what can be judged so far. */
export function OwnEditor({
  which,
  own,
  save,
  close,
}: {
  /** `new`, an own part's id, or `copy:` and any part's id. */
  which: string;
  own: readonly Part[];
  save(p: Part): Promise<void>;
  close(): void;
}) {
  const { id } = useProject();
  const kept = useMemo(() => keptUnder(`own-part ${id} ${which}`), [id, which]);
  const [draft, setDraft] = useState<OwnDraft | null>(null);
  const [check, setCheck] = useState<OwnPartCheck | null>(null);
  const asked = useRef(0);
  const started = useRef(false);
  useEffect(() => {
    if (started.current) return;
    started.current = true;
    const before = kept.load();
    if (before) return setDraft(before);
    const from = which === "new" ? null : { id: which.replace(/^copy:/, ""), copy: which.startsWith("copy:") };
    void core().ownDraft(from, own).then(setDraft);
  }, [kept, own, which]);
  useEffect(() => {
    if (!draft) return;
    const n = ++asked.current;
    kept.keep(draft);
    void core()
      .ownCheck(draft)
      .then((c) => n === asked.current && setCheck(c));
  }, [draft, kept]);
  if (!draft) return <p className="p-6 text-soft">Opening…</p>;
  const set = (part: Partial<OwnDraft>) => setDraft({ ...draft, ...part });
  const problem = (field: string) => check?.problems.find((p) => p.field === field)?.message;
  const text = (key: TextKey, label: string, hint: string, wide = false) => {
    const wrong = problem(key);
    return (
      <div className={wide ? "grow basis-64" : "w-44"}>
        <label className="block">
          <span className="text-sm text-soft">{label}</span>
          <input
            className="w-full"
            value={draft[key] as string}
            placeholder={hint}
            maxLength={200}
            aria-invalid={wrong !== undefined}
            aria-describedby={wrong ? `wrong-${key}` : undefined}
            onChange={(e) => set({ [key]: e.target.value } as Partial<OwnDraft>)}
          />
        </label>
        {wrong && (
          <p id={`wrong-${key}`} className="text-sm font-bold text-stop">
            {wrong}
          </p>
        )}
      </div>
    );
  };
  const shownProblems = check?.problems.filter(
    (p) => !/^(name|address|clock|mode|pullUps|supplies\/|pins\/\d)/.test(p.field),
  );
  const buses = draft.pins.map((p) => p.role.split("-")[0]);
  const taken = draft.id === "" && check?.part && own.some((p) => p.id === check.part!.id) ? check.part.id : null;
  // What is on the screen is saved, not what the last check happened to see.
  const finish = async () => {
    const now = await core().ownCheck(draft);
    if (!now.part || now.problems.length) return setCheck(now);
    kept.drop();
    await save(now.part);
  };
  const ready = check?.ready ?? [];
  const missing = ready.filter((r) => !r.ready);
  return (
    <div className="mt-3">
      <div className="sticky -top-4 z-10 -mx-1 border-b border-line bg-sheet px-1 pt-1 pb-2">
        <div className="flex flex-wrap items-center gap-3">
          <button
            className="btn-main"
            disabled={!check?.part || check.problems.length > 0 || taken !== null}
            data-testid="save-own"
            onClick={() => void finish()}
          >
            Save this part
          </button>
          <button
            className="btn"
            onClick={() => {
              kept.drop();
              close();
            }}
          >
            Give up
          </button>
          {check && check.problems.length > 0 && (
            <span className="text-soft" role="status">
              {check.problems.length === 1 ? "One thing is" : `${check.problems.length} things are`} missing or unclear
            </span>
          )}
        </div>
        <Fold
          className="mt-1"
          testId="readiness"
          title={
            <>
              <span className="text-soft">can be judged:</span>{" "}
              {ready.map((r) => (
                <span key={r.judgement} className="mr-3 whitespace-nowrap text-ink">
                  {r.judgement}{" "}
                  <strong className={r.ready ? "text-good" : "text-risk"}>{r.ready ? "yes" : "not yet"}</strong>
                </span>
              ))}
              {!check?.part && <span className="text-soft">nothing yet: name it, give its pins and supply</span>}
            </>
          }
        >
          {missing.map((r) => (
            <p key={r.judgement} className="text-sm">
              <strong>{r.says}</strong> when it knows {r.needs.join("; ")}.
            </p>
          ))}
          {check?.part && !missing.length && <p className="text-sm">Everything that the app judges is there.</p>}
        </Fold>
      </div>
      <div className="min-w-0">
        {taken && (
          <p role="alert" className="mt-2 font-bold text-stop">
            You have a part of that name already ({taken}). Choose another name, or change that one.
          </p>
        )}
        {shownProblems?.map((p) => (
          <p key={p.field + p.message} className="mt-1 text-stop">
            {p.message}
          </p>
        ))}
        <Step n={1} title="What it is">
          <div className="flex flex-wrap gap-x-4 gap-y-2">
            {text("name", "Name", "Gas sensor, brown board", true)}
            <label className="block w-36">
              <span className="text-sm text-soft">Kind</span>
              <Select<OwnDraft["kind"]>
                label="Kind"
                className="w-full"
                value={draft.kind}
                disabled={draft.id !== "" || draft.base?.board !== undefined}
                options={[
                  { value: "module", name: "module" },
                  { value: "discrete", name: "loose part" },
                  { value: "connector", name: "plug or cable" },
                  { value: "supply", name: "supply" },
                  ...(draft.base?.board ? [{ value: draft.kind, name: draft.kind }] : []),
                ]}
                onChange={(kind) => set({ kind })}
              />
            </label>
            {text("does", "What it does", "Smells alcohol in air", true)}
            {text("sourceTitle", "Where the numbers come from", "data sheet of the chip", true)}
            {text("sourceWhere", "Page or table", "table 5")}
            <label className="block w-36">
              <span className="text-sm text-soft">How sure</span>
              <Select
                label="How sure"
                className="w-full"
                value={draft.certainty}
                options={(["high", "medium", "low"] as const).map((value) => ({ value, name: value }))}
                onChange={(certainty) => set({ certainty })}
              />
            </label>
          </div>
        </Step>
        <Step n={2} title="Pins">
          <PinsEditor
            pins={draft.pins}
            supplies={draft.supplies.map((s) => s.key)}
            set={(pins) =>
              set({
                pins,
                variants: draft.variants.map((v) => ({
                  ...v,
                  pins: pins.map((p) => v.pins.find((x) => x.label === p.label) ?? p),
                })),
              })
            }
            problemAt={(i) => problem(`pins/${i}`)}
          />
          {check?.description && (
            <div className="mt-3 flex flex-wrap items-end gap-6">
              <HeaderDrawing headers={check.description.headers} name={draft.name || "this part"} />
              <p className="max-w-60">
                Is it held like this, seen from the top?{" "}
                <button className="quiet" onClick={() => set({ pins: [...draft.pins].reverse() })}>
                  No, the other way round
                </button>
              </p>
            </div>
          )}
        </Step>
        <Step n={3} title="Supply and signal levels">
          <SuppliesEditor supplies={draft.supplies} set={(supplies) => set({ supplies })} problem={problem} />
        </Step>
        {(buses.includes("i2c") || buses.includes("spi")) && (
          <Step n={4} title="Bus">
            <div className="flex flex-wrap gap-x-4 gap-y-2">
              {buses.includes("i2c") && text("address", "I2C address", "0x76")}
              {text("clock", "Fastest clock", "400 kHz")}
              {buses.includes("spi") && text("mode", "SPI mode", "0")}
              {buses.includes("i2c") && text("pullUps", "Pull-ups on board", "4k7, or empty")}
            </div>
          </Step>
        )}
        <Step n={buses.includes("i2c") || buses.includes("spi") ? 5 : 4} title="How it looks">
          <div className="flex flex-wrap gap-x-4 gap-y-2">
            {text("orientation", "How to hold it", "chip up, pins at the lower edge", true)}
            {text("caution", "Take care", "gets hot", true)}
            {text("width_mm", "Width, mm", "20")}
            {text("height_mm", "Height, mm", "15")}
          </div>
        </Step>
        {draft.pins.length > 0 && (
          <Step n={buses.includes("i2c") || buses.includes("spi") ? 6 : 5} title="Two kinds of the same cable or board">
            {draft.variants.length === 0 ? (
              <button
                className="quiet text-sm"
                onClick={() => set({ variants: [{ name: "", pins: draft.pins.map((p) => ({ ...p })) }] })}
              >
                there is another kind: the same pins, other names and roles
              </button>
            ) : (
              <>
                {text("variantName", "The first kind is called", "straight")}
                {draft.variants.map((v, i) => (
                  <div key={i} className="mt-3">
                    <label className="block w-56">
                      <span className="text-sm text-soft">The other kind is called</span>
                      <input
                        className="w-full"
                        value={v.name}
                        maxLength={40}
                        placeholder="crossed"
                        onChange={(e) =>
                          set({
                            variants: draft.variants.map((x, k) => (k === i ? { ...x, name: e.target.value } : x)),
                          })
                        }
                      />
                    </label>
                    <PinsEditor
                      pins={v.pins}
                      supplies={draft.supplies.map((s) => s.key)}
                      fixedLabels
                      set={(pins) => set({ variants: draft.variants.map((x, k) => (k === i ? { ...x, pins } : x)) })}
                      problemAt={(k) => problem(`variants/${i}/pins/${k}`)}
                    />
                    <button
                      className="quiet text-sm text-soft"
                      onClick={() => set({ variants: draft.variants.filter((_, k) => k !== i) })}
                    >
                      take this kind out
                    </button>
                  </div>
                ))}
              </>
            )}
          </Step>
        )}
      </div>
    </div>
  );
}
