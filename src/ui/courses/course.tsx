"use client";
import Link from "next/link";
import { BOXES, MOST_LESSONS, orderWords } from "@/core/course/types";
import { useEffect, useState } from "react";
import { toast } from "sonner";
import type { CourseView } from "@/core/course";
import type { PatternRow } from "@/workers/api";
import { Checkbox } from "@/ui/shared/checkbox";
import { CountField } from "@/ui/shared/count-field";
import { Fold, Folds } from "@/ui/shared/fold";
import { fetchFile } from "@/ui/shared/fetch-file";
import { Label } from "@/ui/shared/label";
import { Select } from "@/ui/shared/select";
import { core } from "@/ui/state/core";
import { http } from "@/ui/state/http";
import { startsWith } from "@/ui/state/starts-with";
import { useCourse, type CourseState } from "./use-course";

function Lessons({ s }: { s: CourseState }) {
  const { course, change } = s;
  const set = (i: number, more: Partial<(typeof course.lessons)[number]>) =>
    change({ ...course, lessons: course.lessons.map((l, k) => (k === i ? { ...l, ...more } : l)) });
  return (
    <ol aria-label="Lessons">
      {course.lessons.map((l, i) => {
        const title = s.titles.get(l.project);
        const told = s.view?.lessons.find((x) => x.title === title && x.week === l.week);
        return (
          <li
            key={`${i} ${l.project}`}
            className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-line py-1.5"
          >
            <CountField says="Week" value={l.week} least={1} most={60} change={(week) => set(i, { week })} />
            <span className="min-w-0 grow">
              {title ? (
                <Link href={`/p/${l.project}/handout`} className="font-bold hover:text-accent">
                  {title}
                </Link>
              ) : (
                <span className="text-risk">A project that is no longer here</span>
              )}
              {told && (
                <span className="block text-sm text-soft">
                  {told.verdict}, {told.parts} pieces
                </span>
              )}
            </span>
            <Checkbox checked={l.stays} onChange={(stays) => set(i, { stays })}>
              stays built
            </Checkbox>
            <button
              className="quiet text-sm text-soft"
              aria-label={`Take out: ${title ?? "the lost project"}, week ${l.week}`}
              onClick={() => change({ ...course, lessons: course.lessons.filter((_, k) => k !== i) })}
            >
              take out
            </button>
          </li>
        );
      })}
    </ol>
  );
}

/** Projects and patterns to make a lesson of. A pattern becomes a project of its own. */
function Add({ s }: { s: CourseState }) {
  const [patterns, setPatterns] = useState<PatternRow[]>([]);
  useEffect(() => {
    void core().patterns().then(setPatterns);
  }, []);
  const { course, change } = s;
  const full = course.lessons.length >= MOST_LESSONS;
  const last = Math.max(0, ...course.lessons.map((l) => l.week));
  const add = (project: string) =>
    change({ ...course, lessons: [...course.lessons, { project, week: Math.min(60, last + 1), stays: false }] });
  const begin = async (id: string) => {
    const v = await core().patternView(id, undefined, {}, await startsWith());
    if (!v) return;
    const r = await http<{ id: string }>("POST", "/api/projects", {
      document: await core().placed(v.project),
    });
    if (r.status !== 201) return toast.error(r.body.message ?? "Not begun.");
    await s.again();
    add(r.body.id);
  };
  return (
    <div className="mt-2 flex flex-wrap items-center gap-3">
      <Select<string>
        label="A lesson from a pattern"
        value=""
        empty="add a pattern"
        options={patterns.map((p) => ({ value: p.id, name: p.title, disabled: full }))}
        onChange={(id) => void begin(id)}
      />
      <Select<string>
        label="A lesson from a project"
        value=""
        empty="add a project"
        options={s.projects.map((p) => ({ value: p.id, name: p.title, disabled: full }))}
        onChange={add}
      />
      {full && <span className="text-risk">A course has at most {MOST_LESSONS} lessons.</span>}
    </div>
  );
}

function Kit({ view }: { view: CourseView }) {
  return (
    <table className="w-full text-sm" aria-label="The kit">
      <thead>
        <tr className="border-b border-ink text-left">
          {["what", "a bench", "together", "spare", "have", "buy", "most in"].map((h, i) => (
            <th key={h} className={`py-1 pr-3 font-normal text-soft ${i > 0 && i < 6 ? "text-right" : ""}`}>
              {h}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {view.parts.map((p) => (
          <tr key={p.key} className="border-b border-line">
            <td className="py-0.5 pr-3">
              {p.name} <span className="text-soft">{p.value}</span>
            </td>
            {[p.most, p.together, p.spares, p.owned, p.buy].map((n, i) => (
              <td key={i} className="num pr-3 text-right">
                {n || ""}
              </td>
            ))}
            <td className="text-soft">{p.at}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** A course: its lessons, and what they take together. */
export function CoursePage({ id }: { id: string }) {
  const s = useCourse(id);
  if (!s) return null;
  if ("missing" in s)
    return (
      <main className="mx-auto max-w-4xl px-6 py-8">
        <p>{s.missing}</p>
        <Link href="/courses" className="underline">
          All courses
        </Link>
      </main>
    );
  const { course, change, view } = s;
  return (
    <main className="mx-auto max-w-5xl px-6 py-8">
      <div className="flex items-baseline gap-4">
        <Link href="/courses" className="quiet">
          all courses
        </Link>
        <span className="text-sm text-soft" role="status">
          {s.error ? <span className="text-stop">{s.error}</span> : s.saved ? "saved" : "saving"}
        </span>
      </div>
      <h1 className="text-3xl">{course.title}</h1>
      <div className="mt-3 flex flex-wrap items-center gap-x-6 gap-y-2">
        <Label className="inline-flex items-center gap-2">
          Name
          <input
            key={course.title}
            defaultValue={course.title}
            maxLength={120}
            onBlur={(e) => {
              const title = e.target.value.trim();
              if (title && title !== course.title) change({ ...course, title });
            }}
          />
        </Label>
        <CountField
          says="Benches"
          value={course.benches}
          least={1}
          most={60}
          change={(benches) => change({ ...course, benches })}
        />
        <CountField
          says="Weeks from order to having"
          value={course.lead_weeks}
          least={0}
          most={26}
          change={(lead_weeks) => change({ ...course, lead_weeks })}
        />
      </div>
      <h2 className="mt-5 border-b border-ink pb-1 text-xl">Lessons</h2>
      <Lessons s={s} />
      <Add s={s} />
      {s.damaged.length > 0 && <p className="mt-2 text-risk">Can’t be read, and left out: {s.damaged.join(", ")}.</p>}
      {view && view.lessons.length > 0 && (
        <>
          <p className="mt-5">
            A bench needs <span className="num text-2xl">{view.together}</span> pieces for all of it; with a kit for
            each lesson it would be <span className="num text-2xl">{view.apart}</span>.
          </p>
          <div className="mt-2">
            <button
              className="btn-main"
              data-testid="download-course"
              onClick={() => void s.flush().then(() => fetchFile(`/api/courses/${id}/pack`, "The course"))}
            >
              Everything on paper (ZIP)
            </button>
          </div>
          <h2 className="mt-5 text-xl">What to order</h2>
          {view.orders.length === 0 && <p>Nothing: everything is there.</p>}
          <Folds>
            {view.orders.map((o) => (
              <Fold key={o.for} title={`${orderWords(o)}: ${o.lines.reduce((n, l) => n + l.number, 0)} pieces`}>
                <ul className="pl-6">
                  {o.lines.map((l) => (
                    <li key={l.what}>
                      <span className="num inline-block w-10 text-right">{l.number}</span> {l.what}
                    </li>
                  ))}
                </ul>
              </Fold>
            ))}
          </Folds>
          <h2 className="mt-5 text-xl">The kit</h2>
          <Kit view={view} />
          <h2 className="mt-5 text-xl">Boxes of a bench</h2>
          <div className="grid gap-x-8 md:grid-cols-2">
            {view.boxes.map((b) => (
              <section key={b.id} className="mt-2" aria-label={BOXES[b.id]}>
                <h3 className="border-b border-line">{b.name}</h3>
                <ul className="text-sm">
                  {b.lines.map((l) => (
                    <li key={l.what}>
                      <span className="num inline-block w-6 text-right">{l.number}</span> {l.what}
                    </li>
                  ))}
                </ul>
              </section>
            ))}
          </div>
          <h2 className="mt-5 text-xl">What comes back, and when it is sound</h2>
          <Folds>
            {view.returns.map((r, i) => (
              <Fold
                key={i}
                title={`After week ${r.week}: ${r.title}${r.stays ? " stays built" : `, ${r.back.reduce((n, b) => n + b.number, 0)} pieces a bench`}`}
              >
                <ul className="pl-6">
                  {r.back.map((b) => (
                    <li key={b.what} className="border-b border-line py-0.5">
                      <span className="num inline-block w-6 text-right">{b.number}</span> {b.what}{" "}
                      <span className="text-soft">{b.test}</span>
                    </li>
                  ))}
                </ul>
              </Fold>
            ))}
          </Folds>
        </>
      )}
    </main>
  );
}
