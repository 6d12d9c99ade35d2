"use client";
import { zodResolver } from "@hookform/resolvers/zod";
import { useEffect, useMemo, useRef, useState, type ReactNode } from "react";
import { toast } from "sonner";
import { Controller, FormProvider, useFieldArray, useForm, useWatch } from "react-hook-form";
import type { Part } from "@/core/parts/catalogue";
import { CertaintySchema } from "@/core/parts/catalogue/certainty";
import { OwnDraftSchema, type OwnDraft } from "@/core/parts/own/schema";
import type { OwnPartCheck } from "@/workers/api";
import { AskFirst } from "@/ui/shared/ask-first";
import { HeaderDrawing } from "@/ui/shared/header-drawing";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";
import { CompanionsEditor, LayoutEditor, PathsEditor, StrapsEditor } from "./beside";
import { Field } from "./field";
import { keptUnder } from "./kept";
import { PinsEditor } from "./pins";
import { SuppliesEditor } from "./supplies";
import { Select } from "@/ui/shared/select";
import { Fold } from "@/ui/shared/fold";
import { Label } from "@/ui/shared/label";

/** Fields whose mistakes stand beside them; all others are told above. */
const BESIDE_ITS_FIELD =
  /^(name$|address|clock|mode|pullUps|layout|firstRow|rowPitch|straps|supplies\/|pins\/\d|feeds\/|companions\/|channels\/|gates\/)/;

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

/** An own part, filled in from a data sheet page, with a live check of what can be judged so far. */
export function OwnEditor(p: {
  /** `new`, an own part's id, or `copy:` and any part's id. */
  which: string;
  own: readonly Part[];
  save(p: Part): Promise<void>;
  close(): void;
}) {
  const { id } = useProject();
  const { which, own } = p;
  const kept = useMemo(() => keptUnder(`own-part ${id} ${which}`), [id, which]);
  const [draft, setDraft] = useState<OwnDraft | null>(null);
  const started = useRef(false);
  const typed = useRef(false);
  useEffect(() => {
    if (started.current) return;
    started.current = true;
    const before = kept.load();
    if (before) {
      typed.current = true;
      return setDraft(before);
    }
    const bare = which.startsWith("board:");
    const from =
      which === "new"
        ? null
        : { id: which.replace(/^(copy|board):/, ""), copy: bare || which.startsWith("copy:"), bare };
    void core().ownDraft(from, own).then(setDraft);
  }, [kept, own, which]);
  return draft ? (
    <Form {...p} start={draft} typed={typed.current} kept={kept} />
  ) : (
    <p className="p-6 text-soft">Opening…</p>
  );
}

function Form({
  start,
  typed,
  kept,
  own,
  save,
  close,
}: {
  start: OwnDraft;
  /** Whether something of it was typed before. */
  typed: boolean;
  kept: ReturnType<typeof keptUnder>;
  own: readonly Part[];
  save(p: Part): Promise<void>;
  close(): void;
}) {
  const form = useForm<OwnDraft>({ defaultValues: start, resolver: zodResolver(OwnDraftSchema) as never });
  const { control, setValue, getValues, handleSubmit } = form;
  const draft = useWatch({ control }) as OwnDraft;
  const variants = useFieldArray({ control, name: "variants" });
  const [check, setCheck] = useState<OwnPartCheck | null>(null);
  const asked = useRef(0);
  useEffect(() => {
    const n = ++asked.current;
    kept.keep(draft);
    void core()
      .ownCheck(draft)
      .then((c) => n === asked.current && setCheck(c));
  }, [draft, kept]);
  const problem = (field: string) => check?.problems.find((p) => p.field === field)?.message;
  const text = (name: TextKey, label: string, hint: string, wide = false) => (
    <Field name={name} label={label} hint={hint} wrong={problem(name)} className={wide ? "grow basis-64" : "w-44"} />
  );
  const shownProblems = check?.problems.filter((p) => !BESIDE_ITS_FIELD.test(p.field));
  const buses = draft.pins.map((p) => p.role.split("-")[0]);
  const taken = draft.id === "" && check?.part && own.some((p) => p.id === check.part!.id) ? check.part.id : null;
  // What is on the screen is saved, not what the last check happened to see.
  const finish = handleSubmit(
    async () => {
      const now = await core().ownCheck(getValues());
      if (!now.part || now.problems.length) return setCheck(now);
      kept.drop();
      await save(now.part);
    },
    (errors) => {
      const [field, e] = Object.entries(errors)[0] ?? [];
      toast.error(`Not saved: ${field}: ${e?.message ?? "has an entry that can't be read"}`);
    },
  );
  const giveUp = () => {
    kept.drop();
    close();
  };
  const turn = () => {
    for (const list of ["pins", ...getValues("variants").map((_, i) => `variants.${i}.pins` as const)] as const)
      setValue(list, [...getValues(list)].reverse());
  };
  const after = buses.includes("i2c") || buses.includes("spi") ? 5 : 4;
  const ready = check?.ready ?? [];
  const missing = ready.filter((r) => !r.ready);
  return (
    <FormProvider {...form}>
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
            {form.formState.isDirty || typed ? (
              <AskFirst
                title="Give up what is typed here?"
                says="Nothing brings it back. If you go on it is kept, also while you look at other stations."
                yes="Give it up"
                no="Go on"
                go={giveUp}
              >
                <button className="btn">Give up</button>
              </AskFirst>
            ) : (
              <button className="btn" onClick={giveUp}>
                Give up
              </button>
            )}
            {check && check.problems.length > 0 && (
              <span className="text-soft" role="status">
                {check.problems.length === 1 ? "One thing is" : `${check.problems.length} things are`} missing or
                unclear
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
              <Controller
                control={control}
                name="kind"
                render={({ field }) => (
                  <Label className="block w-36">
                    <span className="text-sm text-soft">Kind</span>
                    <Select<OwnDraft["kind"]>
                      label="Kind"
                      className="w-full"
                      value={field.value}
                      disabled={draft.id !== "" || draft.base?.board !== undefined}
                      options={[
                        { value: "module", name: "module" },
                        { value: "discrete", name: "loose part" },
                        { value: "connector", name: "plug or cable" },
                        { value: "supply", name: "supply" },
                        ...(draft.base?.board ? [{ value: field.value, name: field.value }] : []),
                      ]}
                      onChange={field.onChange}
                    />
                  </Label>
                )}
              />
              {text("does", "What it does", "Smells alcohol in air", true)}
              {text("sourceTitle", "Where the numbers come from", "data sheet of the chip", true)}
              {text("sourceWhere", "Page or table", "table 5")}
              <Controller
                control={control}
                name="certainty"
                render={({ field }) => (
                  <Label className="block w-36">
                    <span className="text-sm text-soft">How sure</span>
                    <Select
                      label="How sure"
                      className="w-full"
                      value={field.value}
                      options={CertaintySchema.options.map((value) => ({ value, name: value }))}
                      onChange={field.onChange}
                    />
                  </Label>
                )}
              />
            </div>
          </Step>
          <Step n={2} title="Pins">
            <PinsEditor name="pins" problemAt={(i) => problem(`pins/${i}`)} />
            {draft.pins.length > 1 && <LayoutEditor problem={problem} />}
            {check?.description && (
              <div className="mt-3 flex flex-wrap items-end gap-6">
                <HeaderDrawing headers={check.description.headers} name={draft.name || "this part"} />
                <p className="max-w-60">
                  Is it held like this, seen from the top?{" "}
                  <button className="quiet" onClick={turn}>
                    No, the other way round
                  </button>
                </p>
              </div>
            )}
          </Step>
          <Step n={3} title="Supply and signal levels">
            <SuppliesEditor problem={problem} />
          </Step>
          {(buses.includes("i2c") || buses.includes("spi")) && (
            <Step n={4} title="Bus">
              <div className="flex flex-wrap gap-x-4 gap-y-2">
                {buses.includes("i2c") && text("address", "I2C address", "0x76")}
                {text("clock", "Fastest clock", "400 kHz")}
                {buses.includes("spi") && text("mode", "SPI mode", "0")}
                {buses.includes("i2c") && text("pullUps", "Pull-ups on board", "4k7, or empty")}
              </div>
              {buses.includes("i2c") && <StrapsEditor problem={problem} />}
            </Step>
          )}
          <Step n={after} title="What goes with it">
            <CompanionsEditor problem={problem} />
            <PathsEditor problem={problem} />
          </Step>
          <Step n={after + 1} title="How it looks">
            <div className="flex flex-wrap gap-x-4 gap-y-2">
              {text("orientation", "How to hold it", "chip up, pins at the lower edge", true)}
              {text("caution", "Take care", "gets hot", true)}
              {text("width_mm", "Width, mm", "20")}
              {text("height_mm", "Height, mm", "15")}
            </div>
          </Step>
          {draft.pins.length > 0 && (
            <Step n={after + 2} title="Two kinds of the same cable or board">
              {variants.fields.length === 0 ? (
                <button
                  className="quiet text-sm"
                  onClick={() => variants.append({ name: "", pins: getValues("pins").map((p) => ({ ...p })) })}
                >
                  there is another kind: the same pins, other names and roles
                </button>
              ) : (
                <>
                  {text("variantName", "The first kind is called", "straight")}
                  {variants.fields.map((v, i) => (
                    <div key={v.id} className="mt-3">
                      <Field
                        name={`variants.${i}.name`}
                        label="The other kind is called"
                        hint="crossed"
                        wrong={undefined}
                        maxLength={40}
                        className="w-56"
                      />
                      <PinsEditor
                        name={`variants.${i}.pins`}
                        fixedLabels
                        problemAt={(k) => problem(`variants/${i}/pins/${k}`)}
                      />
                      <button className="quiet text-sm text-soft" onClick={() => variants.remove(i)}>
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
    </FormProvider>
  );
}
