"use client";
import { useEffect, useState } from "react";
import type { HouseRuleKey } from "@/core/project";
import { useAnswer } from "@/ui/shared/answer";
import { StationTitle } from "@/ui/shared/title";
import { useProject } from "@/ui/state/project";

/** Each choice with what it costs and what it buys. The first of each is the default. */
const RULES: { key: HouseRuleKey; question: string; choices: [value: string, says: string][] }[] = [
  {
    key: "buttonPull",
    question: "How is a button read?",
    choices: [
      ["internal-up", "the chip's own pull-up, button to ground: no extra part"],
      ["external-down", "10 kΩ to ground, button to supply: pressed reads 1, one resistor each"],
      ["external-up", "10 kΩ to supply, button to ground: works on pins without a pull-up"],
    ],
  },
  {
    key: "levelPolicy",
    question: "When do two voltages go together?",
    choices: [
      ["thresholds", "when the guaranteed levels leave a margin: fewer parts"],
      ["same-nominal", "only when both sides run at the same voltage: stricter, more level changes"],
    ],
  },
  {
    key: "sharing",
    question: "How do parts share ground and supply?",
    choices: [
      ["rails", "breadboard rails: easy to change"],
      ["daisy-chain", "from part to part: no breadboard, one bad wire stops the rest"],
      ["splice", "one splice or bus strip: neat and lasting, needs soldering"],
    ],
  },
  {
    key: "ledResistorSide",
    question: "Where does an LED's resistor go?",
    choices: [
      ["anode", "anode side, towards the pin"],
      ["cathode", "cathode side, towards ground: electrically the same"],
    ],
  },
  {
    key: "programStyle",
    question: "How is the starter program written?",
    choices: [
      ["non-blocking", "tasks with their own time: nothing waits"],
      ["delays", "one thing after another: simplest to read, for a first lesson"],
    ],
  },
  {
    key: "strips",
    question: "What feeds a light strip?",
    choices: [
      ["own-supply", "its own supply: full brightness, one adapter more"],
      ["usb-capped", "USB with a brightness cap: one cable, dimmer"],
    ],
  },
];
const COLOURS = ["black", "red", "orange", "yellow", "green", "blue", "violet", "grey", "white", "brown"];

/** A text field that saves when it is left, so that every keystroke is not a step to undo. */
function Field({
  label,
  value,
  max,
  area,
  save,
}: {
  label: string;
  value: string;
  max: number;
  area?: boolean;
  save(v: string): void;
}) {
  const [text, setText] = useState(value);
  useEffect(() => setText(value), [value]);
  const done = () => text !== value && save(text);
  const shared = { value: text, maxLength: max, className: "w-full", onBlur: done };
  return (
    <label className="mt-3 block">
      <span className="text-soft">{label}</span>
      {area ? (
        <textarea rows={3} {...shared} onChange={(e) => setText(e.target.value)} />
      ) : (
        <input {...shared} onChange={(e) => setText(e.target.value)} onKeyDown={(e) => e.key === "Enter" && done()} />
      )}
    </label>
  );
}

/** One house rule: its choices with what each costs and buys. */
function RuleChoice({ rule }: { rule: (typeof RULES)[number] }) {
  const { project, edit } = useProject();
  const [now, choose] = useAnswer<string>(
    project.houseRules[rule.key] ?? rule.choices[0]![0],
    (v) => void edit({ type: "setHouseRules", rules: { [rule.key]: v } }),
  );
  return (
    <fieldset className="mt-2 border-t border-line pt-1">
      <legend className="sr-only">{rule.question}</legend>
      <p className="font-bold" aria-hidden>
        {rule.question}
      </p>
      {rule.choices.map(([value, says], i) => (
        <label key={value} className="flex items-start gap-2">
          <input type="radio" className="mt-1" name={rule.key} checked={now === value} onChange={() => choose(value)} />
          <span>
            {says} {i === 0 && <span className="text-soft">(usual)</span>}
          </span>
        </label>
      ))}
    </fieldset>
  );
}

/** Brief: what it should do, who is served, and the choices where careful people disagree. */
export function Brief() {
  const { project, edit } = useProject();
  const [owned, own] = useAnswer(
    project.houseRules.wireColours ?? COLOURS,
    (wireColours) => void edit({ type: "setHouseRules", rules: { wireColours } }),
  );
  const [stage, setStage] = useAnswer(project.brief.stage, (v) => void edit({ type: "setBrief", brief: { stage: v } }));
  return (
    <>
      <StationTitle name="Brief" says="What it should do, and the choices that the plan will follow." />
      <div className="grid gap-x-10 lg:grid-cols-2">
        <section>
          <Field
            label="Name"
            value={project.title}
            max={120}
            save={(title) => title.trim() && void edit({ type: "setTitle", title: title.trim() })}
          />
          <Field
            label="What it should do"
            value={project.brief.goal}
            max={2000}
            area
            save={(goal) => void edit({ type: "setBrief", brief: { goal } })}
          />
          <Field
            label="Notes"
            value={project.brief.notes}
            max={10000}
            area
            save={(notes) => void edit({ type: "setBrief", brief: { notes } })}
          />
          <fieldset className="mt-3">
            <legend className="text-soft">To try out or to keep?</legend>
            {(["prototype", "keep"] as const).map((s) => (
              <label key={s} className="mr-6 inline-flex items-center gap-2">
                <input type="radio" name="stage" checked={stage === s} onChange={() => setStage(s)} />
                {s === "prototype" ? "to try out" : "to keep"}
              </label>
            ))}
          </fieldset>
          <fieldset className="mt-4">
            <legend className="text-soft">Wire colours in the drawer</legend>
            <div className="flex flex-wrap gap-x-4">
              {COLOURS.map((c) => (
                <label key={c} className="inline-flex items-center gap-1.5">
                  <input
                    type="checkbox"
                    checked={owned.includes(c)}
                    onChange={(e) => own(COLOURS.filter((x) => (x === c ? e.target.checked : owned.includes(x))))}
                  />
                  {c}
                </label>
              ))}
            </div>
          </fieldset>
          <p className="mt-4 border-l-4 border-stop pl-3">
            Mains voltage is not planned here. A relay’s mains side needs your local electrical rules and a licensed
            person.
          </p>
        </section>
        <section className="mt-3">
          <h2 className="text-lg">House rules</h2>
          {RULES.map((r) => (
            <RuleChoice key={r.key} rule={r} />
          ))}
        </section>
      </div>
    </>
  );
}
