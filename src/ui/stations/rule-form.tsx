"use client";
import { zodResolver } from "@hookform/resolvers/zod";
import { useEffect } from "react";
import { Controller, useForm, useWatch, type Control } from "react-hook-form";
import { z } from "zod";
import type { RuleInput, RuleOutput, RulesView } from "@/core/firmware/rules/view";
import { RuleSchema, type Rule } from "@/core/project/rules";
import { Hidden } from "@/ui/shared/hidden";
import { Label } from "@/ui/shared/label";
import { Select } from "@/ui/shared/select";

type How = "yes" | "no" | "above" | "below" | "follow" | "between" | "at";
type Act = "on" | "off" | "set" | "toggle" | "count" | "for" | "sequence" | "next" | "log" | "follow";
interface Fields {
  when: string;
  how: How;
  value: string;
  /** The end of a time of day. */
  until: string;
  ref: string;
  act: Act;
  much: string;
  other: string;
  /** One thing after the other: `on 0.2, off 0.2`. */
  steps: string;
  times: string;
  /** What the board is to the computer, when that is told something. */
  sends: string;
}
/** What is asked for by what the board is to the computer: while something holds, and as far as something goes. */
const SENT: Record<string, [string, string]> = {
  keyboard: ["gets the key", "gets the key"],
  midi: ["gets note number", "follows with controller number"],
  joystick: ["gets button number", "follows with axis (x, y, z)"],
};
/** What stands for "again and again" among the inputs. */
const TIME = "time";
const EMPTY: Fields = {
  when: "",
  how: "above",
  value: "",
  until: "",
  ref: "",
  act: "on",
  much: "",
  other: "",
  steps: "",
  times: "",
  sends: "",
};
const key = (i: RuleInput) => `${i.ref} ${i.out}`;

/** The rule that the fields say, or nothing while something is missing. */
function ruleOf(f: Fields): unknown {
  const number = (text: string) => (text.trim() === "" ? undefined : Number(text.replace(",", ".")));
  const [ref, out] = f.when.split(" ");
  const day = (text: string) => text.trim().replace(/^(\d)(?=:)/, "0$1");
  const when =
    f.when === TIME
      ? { every_s: number(f.value) }
      : f.how === "between"
        ? { ref, from: day(f.value), to: day(f.until) }
        : f.how === "at"
          ? { ref, at: day(f.value) }
          : f.how === "follow"
            ? { ref, out }
            : f.how === "yes" || f.how === "no"
              ? { ref, out, is: f.how === "yes" ? 1 : 0 }
              : { ref, out, [f.how]: number(f.value) };
  if (f.sends) {
    const n = number(f.much);
    const far = f.how === "follow";
    const send =
      f.sends === "keyboard"
        ? { key: f.much.length > 1 ? f.much.trim().toLowerCase() : f.much }
        : f.sends === "midi"
          ? far
            ? { controller: n }
            : { note: n }
          : far
            ? { axis: f.much.trim().toLowerCase() }
            : { button: n };
    return { when, do: { ref: f.ref, act: "send", send } };
  }
  if (f.how === "follow" && f.when !== TIME) return { when, do: { ref: f.ref, act: "follow" } };
  if (f.act === "set") return { when, do: { ref: f.ref, act: "set", value: number(f.much) } };
  if (f.act === "for") return { when, do: { ref: f.ref, act: "for", for_s: number(f.much) } };
  if (f.act === "sequence") {
    const steps = f.steps
      .split(/[,;]\s+|[,;]$/)
      .filter(Boolean)
      .map((s) => {
        const [value = "", for_s = ""] = s.trim().split(/\s+/);
        return { value: value === "on" || value === "off" ? value : number(value), for_s: number(for_s) };
      });
    return { when, do: { ref: f.ref, act: "sequence", steps, ...(f.times.trim() && { times: number(f.times) }) } };
  }
  if (f.act === "next") return { when, do: { ref: f.ref, act: "next", among: [f.other] } };
  return { when, do: { ref: f.ref, act: f.act } };
}
const FieldsSchema = z.any().transform(ruleOf).pipe(RuleSchema);

const HOWS = (i: RuleInput | undefined): { value: How; name: string }[] =>
  i?.clock
    ? [
        { value: "between", name: "is from … to" },
        { value: "at", name: "comes to" },
        { value: "follow", name: "is followed by" },
      ]
    : i?.yesNo
      ? [
          { value: "yes", name: `is ${i.word}` },
          { value: "no", name: `is not ${i.word}` },
        ]
      : [
          { value: "above", name: "is above" },
          { value: "below", name: "is below" },
          { value: "follow", name: "is followed by" },
        ];
const ACTS = (o: RuleOutput | undefined, moment: boolean, others: boolean): { value: Act; name: string }[] =>
  o?.logs ? [{ value: "log", name: "gets a line of all readings" }] : actsFor(o, moment, others);
const actsFor = (o: RuleOutput | undefined, moment: boolean, others: boolean): { value: Act; name: string }[] => [
  ...(moment
    ? []
    : ([
        { value: "on", name: "is on" },
        ...(o && (!o.onOff || o.dims) ? [{ value: "set", name: `is set to a ${o.word}` }] : []),
        { value: "off", name: "is off" },
      ] as { value: Act; name: string }[])),
  { value: "for", name: "is on for … seconds" },
  { value: "sequence", name: "does one thing after the other" },
  { value: "toggle", name: "goes on or off" },
  ...(o && !o.onOff ? [{ value: "count" as const, name: "counts one on" }] : []),
  ...(others ? [{ value: "next" as const, name: "takes turns with" }] : []),
];

function Pick<N extends "when" | "how" | "ref" | "act" | "other">({
  control,
  name,
  label,
  options,
}: {
  control: Control<Fields>;
  name: N;
  label: string;
  options: { value: string; name: string }[];
}) {
  return (
    <Controller
      control={control}
      name={name}
      render={({ field }) => (
        <Select
          label={label}
          empty={`${label.toLowerCase()} …`}
          value={field.value}
          options={options}
          onChange={(v) => field.onChange(v)}
        />
      )}
    />
  );
}

/** A sentence put together from its parts. */
export function NewRule({ view, add }: { view: RulesView; add(rule: Rule): void }) {
  const { control, register, handleSubmit, setValue, reset } = useForm<Fields>({
    defaultValues: EMPTY,
    resolver: zodResolver(FieldsSchema) as never,
  });
  const f = useWatch({ control }) as Fields;
  const input = view.inputs.find((i) => key(i) === f.when);
  const output = view.outputs.find((o) => o.ref === f.ref);
  const time = f.when === TIME;
  const hows = HOWS(input);
  const sends = output?.sends ?? "";
  const others = view.outputs.filter((o) => o.ref !== f.ref);
  // What is chosen must be among what can be chosen now.
  const firstHow = hows.some((h) => h.value === f.how) ? f.how : hows[0]!.value;
  const acts = ACTS(output, time || firstHow === "at", others.length > 0);
  const firstAct = acts.some((a) => a.value === f.act) ? f.act : acts[0]!.value;
  useEffect(() => {
    if (firstHow !== f.how) setValue("how", firstHow);
    if (firstAct !== f.act) setValue("act", firstAct);
    if (sends !== f.sends) setValue("sends", sends);
  }, [firstHow, firstAct, sends, f.how, f.act, f.sends, setValue]);
  const numbered = time || firstHow === "above" || firstHow === "below";
  const daily = !time && input?.clock;
  const ready = FieldsSchema.safeParse({ ...f, how: firstHow, act: firstAct, sends }).success;
  const send = handleSubmit((rule) => {
    add(rule as unknown as Rule);
    reset(EMPTY);
  });
  return (
    <form className="mt-2 flex flex-wrap items-end gap-2" onSubmit={(e) => void send(e)} data-testid="new-rule">
      <Pick
        control={control}
        name="when"
        label="When"
        options={[
          ...view.inputs.map((i) => ({
            value: key(i),
            name: i.word === "pressed" || i.word === i.out ? i.label : `${i.label}: ${i.word}`,
          })),
          { value: TIME, name: "again and again, every" },
        ]}
      />
      {!time && input && <Pick control={control} name="how" label="How" options={hows} />}
      {numbered && (time || input) && (
        <span className="flex items-end gap-1">
          <Label htmlFor="rule-value">
            <Hidden>{time ? "Seconds" : "Value"}</Hidden>
          </Label>
          <input id="rule-value" className="field num w-20" inputMode="decimal" {...register("value")} />
          <span>{time ? "s" : input?.unit}</span>
        </span>
      )}
      {daily && (
        <span className="flex items-end gap-1">
          <Label htmlFor="rule-from">
            <Hidden>{firstHow === "at" ? "Time of day" : "From, time of day"}</Hidden>
          </Label>
          <input id="rule-from" className="field num w-20" placeholder="18:00" {...register("value")} />
          {firstHow === "between" && (
            <>
              <Label htmlFor="rule-until">
                <span>to</span>
              </Label>
              <input id="rule-until" className="field num w-20" placeholder="23:00" {...register("until")} />
            </>
          )}
        </span>
      )}
      <Pick
        control={control}
        name="ref"
        label="What"
        options={view.outputs.map((o) => ({ value: o.ref, name: o.label }))}
      />
      {sends && (
        <span className="flex items-end gap-1">
          <Label htmlFor="rule-send">
            <span>{SENT[sends]?.[firstHow === "follow" ? 1 : 0]}</span>
          </Label>
          <input id="rule-send" className="field num w-20" {...register("much")} />
        </span>
      )}
      {firstHow !== "follow" && output && !sends && <Pick control={control} name="act" label="Does" options={acts} />}
      {!sends && (firstAct === "set" || firstAct === "for") && firstHow !== "follow" && (
        <span className="flex items-end gap-1">
          <Label htmlFor="rule-much">
            <Hidden>{firstAct === "for" ? "Seconds on" : "How much"}</Hidden>
          </Label>
          <input id="rule-much" className="field num w-20" inputMode="decimal" {...register("much")} />
          <span>{firstAct === "for" ? "s" : output?.unit}</span>
        </span>
      )}
      {!sends && firstAct === "sequence" && firstHow !== "follow" && (
        <span className="flex flex-wrap items-end gap-1">
          <Label htmlFor="rule-steps">
            <span>what, and seconds</span>
          </Label>
          <input
            id="rule-steps"
            className="field num w-52"
            placeholder={output && !output.onOff ? `${output.range[1]} 1, off 0.5` : "on 0.2, off 0.3"}
            {...register("steps")}
          />
          <input
            aria-label="Times"
            className="field num w-14"
            inputMode="numeric"
            placeholder="1"
            {...register("times")}
          />
          <span>times</span>
        </span>
      )}
      {!sends && firstAct === "next" && firstHow !== "follow" && (
        <Pick
          control={control}
          name="other"
          label="With"
          options={others.map((o) => ({ value: o.ref, name: o.label }))}
        />
      )}
      <button className="btn-main" disabled={!ready}>
        Add
      </button>
    </form>
  );
}
