"use client";
import { PLACES, type Place } from "@/core/project/choices";
import { useAnswer } from "@/ui/shared/answer";
import { SaveField } from "@/ui/shared/save-field";
import { StationTitle } from "@/ui/shared/title";
import { useProject } from "@/ui/state/project";
import { afterwards, later } from "@/ui/shared/later";
import { Hidden } from "@/ui/shared/hidden";
import { Fold } from "@/ui/shared/fold";
import { questions, type Question } from "./rules";
import { Checkbox } from "@/ui/shared/checkbox";
import { Radios } from "@/ui/shared/radios";

/** What is only there once it is asked for, or below what is read first. */
const Idea = afterwards(() => import("./idea").then((m) => m.Idea));
const Onward = later(() => import("./onward").then((m) => m.Onward));
const Schools = later(() => import("./schools").then((m) => m.Schools));
const Settle = afterwards(() => import("./settle").then((m) => m.Settle));

const COLOURS = ["black", "red", "orange", "yellow", "green", "blue", "violet", "grey", "white", "brown"];

const FIELD = "mt-3 block";

/** One question with its choices as radio buttons; the first is the usual one. */
function Choice({
  name,
  question,
  choices,
  now,
  choose,
}: {
  name: string;
  question: string;
  choices: readonly { value: string; says: string }[];
  now: string;
  choose(value: string): void;
}) {
  return (
    <div className="mt-2 border-t border-line pt-1">
      <p className="font-bold" id={`ask-${name}`}>
        {question}
      </p>
      <Radios
        labelledBy={`ask-${name}`}
        value={now}
        options={choices.map(({ value, says }, i) => ({
          value,
          name: (
            <>
              {says} {i === 0 && <span className="text-soft">(usual)</span>}
            </>
          ),
        }))}
        onChange={choose}
      />
    </div>
  );
}

/** One house rule: its choices with what each costs and buys. */
function RuleChoice({ rule }: { rule: Question }) {
  const { project, edit } = useProject();
  const [now, choose] = useAnswer<string>(
    project.houseRules[rule.key] ?? rule.choices[0]!.value,
    (v) => void edit({ type: "setHouseRules", rules: { [rule.key]: v } }),
  );
  const settled = project.fixedRules?.keys.includes(rule.key);
  return (
    <>
      {settled ? (
        <div className="mt-2 border-t border-line pt-1">
          <p className="font-bold">{rule.question}</p>
          <p>
            {rule.choices.find((c) => c.value === now)?.says}{" "}
            <span className="text-soft">(settled by {project.fixedRules!.by})</span>
          </p>
        </div>
      ) : (
        <Choice name={rule.key} question={rule.question} choices={rule.choices} now={now} choose={choose} />
      )}
      <Fold
        title={
          <>
            both sides, with pictures <Hidden>of: {rule.question}</Hidden>
          </>
        }
        className="text-sm"
      >
        <Schools rule={rule} />
      </Fold>
    </>
  );
}

const PLACE_CHOICES = (Object.keys(PLACES) as Place[]).map((value) => {
  const { says, min_C, max_C } = PLACES[value];
  return { value, says: `${says}: ${min_C < 0 ? `−${-min_C}` : min_C} to ${max_C} °C around it` };
});
const STAGE_CHOICES = [
  { value: "prototype", says: "to try out: boards that need no soldering come first" },
  { value: "keep", says: "to keep: the cheaper plan comes first" },
];
const IRON_CHOICES = [
  { value: "yes", says: "yes: loose headers are no hindrance" },
  { value: "no", says: "no: boards that come ready first, and the plan says what would want soldering" },
];

/** Facts that the plan rests on: how long it shall last, how warm and cold it gets, and whether anything can be soldered. */
function Facts() {
  const { project, edit } = useProject();
  const [place, setPlace] = useAnswer<Place>(
    project.brief.place,
    (v) => void edit({ type: "setBrief", brief: { place: v } }),
  );
  const [stage, setStage] = useAnswer(project.brief.stage, (v) => void edit({ type: "setBrief", brief: { stage: v } }));
  const [iron, setIron] = useAnswer(project.brief.iron, (v) => void edit({ type: "setBrief", brief: { iron: v } }));
  return (
    <>
      <Choice
        name="stage"
        question="To try out or to keep?"
        choices={STAGE_CHOICES}
        now={stage}
        choose={(v) => setStage(v === "keep" ? "keep" : "prototype")}
      />
      <Choice
        name="place"
        question="Where will it live?"
        choices={PLACE_CHOICES}
        now={place}
        choose={(v) => setPlace(v as Place)}
      />
      <Choice
        name="iron"
        question="Is a soldering iron at hand?"
        choices={IRON_CHOICES}
        now={iron ? "yes" : "no"}
        choose={(v) => setIron(v === "yes")}
      />
    </>
  );
}

/** Brief: what it should do, who is served, and the choices where careful people disagree. */
export function Brief() {
  const { project, edit } = useProject();
  const [owned, own] = useAnswer(
    project.houseRules.wireColours ?? COLOURS,
    (wireColours) => void edit({ type: "setHouseRules", rules: { wireColours } }),
  );
  return (
    <>
      <StationTitle name="Brief" says="What it should do, and the choices that the plan will follow." />
      <div className="grid gap-x-10 lg:grid-cols-2">
        <section>
          <SaveField
            label="Name"
            className={FIELD}
            fieldClass="w-full"
            value={project.title}
            maxLength={120}
            schema={(s) => s.nameUpTo(120, "A project has a name.")}
            save={(title) => void edit({ type: "setTitle", title })}
          />
          <SaveField
            label="What it should do"
            className={FIELD}
            fieldClass="w-full"
            area
            value={project.brief.goal}
            maxLength={2000}
            schema={(s) => s.textUpTo(2000)}
            save={(v) => void edit({ type: "setBrief", brief: { goal: v } })}
          />
          {project.pattern !== undefined && <Onward />}
          <Idea />
          <SaveField
            label="Notes"
            className={FIELD}
            fieldClass="w-full"
            area
            value={project.brief.notes}
            maxLength={10000}
            schema={(s) => s.textUpTo(10_000)}
            save={(v) => void edit({ type: "setBrief", brief: { notes: v } })}
          />
          <p className="mt-4 border-l-4 border-stop pl-3">
            Mains voltage is not planned here. A relay’s mains side needs your local electrical rules and a licensed
            person.
          </p>
          <div className="mt-4">
            <Facts />
          </div>
          <fieldset className="mt-4">
            <legend className="text-soft">Wire colours in the drawer</legend>
            <div className="flex flex-wrap gap-x-4">
              {COLOURS.map((c) => (
                <Checkbox
                  key={c}
                  checked={owned.includes(c)}
                  onChange={(on) => own(COLOURS.filter((x) => (x === c ? on : owned.includes(x))))}
                >
                  {c}
                </Checkbox>
              ))}
            </div>
          </fieldset>
        </section>
        <section className="mt-3">
          <h2 className="text-lg">House rules</h2>
          {questions.map((r) => (
            <RuleChoice key={r.key} rule={r} />
          ))}
          <Settle />
        </section>
      </div>
    </>
  );
}
