"use client";
import { useEffect, useState } from "react";
import { LESSON_AIMS, LESSON_DEFAULT, LESSON_LEVELS, type LessonAim, type LessonLevel } from "@/core/project/choices";
import type { LessonView } from "@/workers/api";
import { Checkbox } from "@/ui/shared/checkbox";
import { CountField } from "@/ui/shared/count-field";
import { Download } from "@/ui/shared/download";
import { Fold, Folds } from "@/ui/shared/fold";
import { Radios } from "@/ui/shared/radios";
import { core } from "@/ui/state/core";
import { LESSON_PRINTS } from "./print-list";
import { useProject } from "@/ui/state/project";
import { OpenRoom } from "@/ui/room/open-room";

const AIMS = Object.keys(LESSON_AIMS) as LessonAim[];
/** What of a lesson is other than on the last print. */
function Changes({ view, at }: { view: LessonView; at: string }) {
  const list = view.changes ?? [];
  if (!list.length) return <p className="text-good">What was printed on {at.slice(0, 10)} still holds.</p>;
  const sections = [...new Set(list.map((c) => c.section))];
  return (
    <div>
      <p className="text-risk">
        <strong>Changed since the print of {at.slice(0, 10)}:</strong> {sections.join(", ")}.
      </p>
      <Fold title={`${list.length} lines that are other now`}>
        <ul className="list-disc pl-5 text-sm">
          {list.map((c, i) => (
            <li key={i}>{c.says}</li>
          ))}
        </ul>
      </Fold>
    </div>
  );
}

/** The lesson on a plan: for whom, how long, to what end; and all that comes of it. */
export function LessonPack() {
  const { project, edit } = useProject();
  const wish = { ...LESSON_DEFAULT, ...project.lesson };
  const benches = project.kit?.benches ?? 1;
  const [view, setView] = useState<LessonView | null>(null);
  useEffect(() => {
    let gone = false;
    void core()
      .lessonView(project, new Date().toISOString())
      .then((v) => {
        if (!gone) setView(v);
      });
    return () => {
      gone = true;
    };
  }, [project]);
  const set = (lesson: Partial<typeof LESSON_DEFAULT>) => void edit({ type: "setLesson", lesson });
  const lesson = view?.lesson;
  return (
    <section aria-label="Lesson" className="mt-5 border-t border-ink pt-2">
      <h2 className="text-lg">A lesson on it</h2>
      <div className="mt-1 flex flex-wrap items-center gap-x-6 gap-y-1">
        <CountField
          says="Benches"
          value={benches}
          least={1}
          most={60}
          change={(n) => void edit({ type: "setKit", kit: { benches: n } })}
        />
        <CountField
          says="Minutes a meeting"
          value={wish.minutes}
          least={20}
          most={480}
          change={(minutes) => set({ minutes })}
        />
      </div>
      <div className="mt-2 grid gap-x-10 md:grid-cols-2">
        <div>
          <p className="font-bold" id="lesson-level">
            Who learns?
          </p>
          <Radios
            labelledBy="lesson-level"
            value={wish.level}
            options={(Object.keys(LESSON_LEVELS) as LessonLevel[]).map((value) => ({
              value,
              name: (
                <>
                  {LESSON_LEVELS[value].name} <span className="text-sm text-soft">{LESSON_LEVELS[value].says}</span>
                </>
              ),
            }))}
            onChange={(level) => set({ level })}
          />
        </div>
        <div>
          <p className="font-bold">What shall they learn?</p>
          <ul>
            {AIMS.map((a) => (
              <li key={a}>
                <Checkbox
                  checked={wish.aims.includes(a)}
                  // A lesson to no end is none.
                  disabled={wish.aims.length === 1 && wish.aims[0] === a}
                  onChange={(on) => set({ aims: AIMS.filter((x) => (x === a ? on : wish.aims.includes(x))) })}
                >
                  <span>
                    {LESSON_AIMS[a].name} <span className="text-sm text-soft">{LESSON_AIMS[a].says}</span>
                  </span>
                </Checkbox>
              </li>
            ))}
          </ul>
        </div>
      </div>
      {lesson && (
        <p className="mt-3">
          <span className="num text-2xl">{lesson.sessions.length}</span>{" "}
          {lesson.sessions.length === 1 ? "meeting" : "meetings"} of {lesson.sessions.map((s) => s.minutes).join(", ")}{" "}
          minutes · <span className="num text-2xl">{lesson.steps.length}</span> steps ·{" "}
          <span className="num text-2xl">{lesson.questions.length}</span> questions ·{" "}
          <span className="num text-2xl">{lesson.risks.length}</span> dangers named
        </p>
      )}
      {view && project.lesson?.made && <Changes view={view} at={project.lesson.made.at} />}
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <Download main path="lesson" testId="download-lesson">
          The whole pack (ZIP)
        </Download>
        {view && (
          <button
            className="btn"
            onClick={() =>
              void edit({ type: "setLesson", lesson: {}, made: { ...view.print, at: new Date().toISOString() } })
            }
          >
            It is printed: tell me what changes from now on
          </button>
        )}
      </div>
      <ul className="mt-2 max-w-3xl">
        {LESSON_PRINTS.map((p) => (
          <li key={p.what} className="flex justify-between gap-4 border-b border-line py-1.5">
            <span>
              {p.name} <span className="block text-sm text-soft">{p.says}</span>
            </span>
            <Download path={`print?what=${p.what}`}>PDF</Download>
          </li>
        ))}
      </ul>
      {lesson && (
        <div className="mt-3">
          <Folds>
            <Fold title="Questions and their answers">
              <ol className="list-decimal pl-6">
                {lesson.questions.map((q) => (
                  <li key={q.id} className="mb-1">
                    {q.ask} <span className="block text-soft">{q.answer}</span>
                  </li>
                ))}
              </ol>
            </Fold>
            <Fold title="Time">
              {lesson.sessions.map((s, i) => (
                <div key={i}>
                  <p className="font-bold">
                    Meeting {i + 1}: {s.minutes} minutes
                  </p>
                  <ul className="list-disc pl-6">
                    {s.blocks.map((b, k) => (
                      <li key={k}>
                        {b.what}, <span className="num">{b.minutes}</span> min
                      </li>
                    ))}
                  </ul>
                </div>
              ))}
            </Fold>
            <Fold title="Risk note">
              <ul className="list-disc pl-6">
                {lesson.risks.map((r) => (
                  <li key={r.id}>
                    <strong>{r.what}</strong> {r.does} <span className="text-soft">Here: {r.where}.</span>
                  </li>
                ))}
              </ul>
            </Fold>
            <Fold title="Faults to find, with the key">
              {lesson.faults.length === 0 && <p>Choose “finding faults” among what they shall learn.</p>}
              <ul className="list-disc pl-6">
                {lesson.faults.map((f) => (
                  <li key={f.bench}>
                    Bench {f.bench}: {f.levelName}, number <span className="num">{f.seed}</span>. {f.fault}.
                  </li>
                ))}
              </ul>
            </Fold>
          </Folds>
        </div>
      )}
      <OpenRoom />
    </section>
  );
}
