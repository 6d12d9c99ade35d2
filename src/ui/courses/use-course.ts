"use client";
import { useCallback, useEffect, useRef, useState } from "react";
import type { Course, CourseView } from "@/core/course";
import { core } from "@/ui/state/core";
import { http } from "@/ui/state/http";

export interface Known {
  id: string;
  title: string;
}
export interface CourseState {
  course: Course;
  view: CourseView | null;
  damaged: string[];
  titles: ReadonlyMap<string, string>;
  projects: Known[];
  saved: boolean;
  error: string | null;
  change(c: Course): void;
  /** Waits until everything is on disk. */
  flush(): Promise<void>;
  /** Looks up the list of projects again. */
  again(): Promise<void>;
}

/** A course: read once, saved after each change over the version that it was based on, its kit worked out anew each time. */
export function useCourse(id: string): CourseState | { missing: string } | null {
  const [course, setCourse] = useState<Course | null>(null);
  const [missing, setMissing] = useState<string | null>(null);
  const [error, setError] = useState<string | null>(null);
  const [projects, setProjects] = useState<Known[]>([]);
  const [worked, setWorked] = useState<{ view: CourseView; damaged: string[] } | null>(null);
  const [saved, setSaved] = useState(true);
  const version = useRef(0);
  const line = useRef<Promise<void>>(Promise.resolve());
  const again = useCallback(async () => {
    const r = await http<Known[]>("GET", "/api/projects");
    if (r.status === 200) setProjects(r.body);
  }, []);
  useEffect(() => {
    void http<{ version: number; course: Course }>("GET", `/api/courses/${id}`).then((r) => {
      if (r.status !== 200) return setMissing(r.body.message ?? "This course can't be read.");
      version.current = r.body.version;
      setCourse(r.body.course);
    });
    void again();
  }, [id, again]);
  const wanted = JSON.stringify(course?.lessons.map((l) => l.project) ?? []);
  const [documents, setDocuments] = useState<Record<string, unknown>>({});
  useEffect(() => {
    let gone = false;
    void (async () => {
      const got: Record<string, unknown> = {};
      for (const p of new Set(JSON.parse(wanted) as string[])) {
        const r = await http<{ document: unknown }>("GET", `/api/projects/${p}`);
        if (r.status === 200) got[p] = r.body.document;
      }
      if (!gone) setDocuments(got);
    })();
    return () => {
      gone = true;
    };
  }, [wanted]);
  useEffect(() => {
    let gone = false;
    if (course)
      void core()
        .courseView(course, documents)
        .then((w) => {
          if (!gone) setWorked(w);
        });
    return () => {
      gone = true;
    };
  }, [course, documents]);
  if (missing !== null) return { missing };
  if (!course) return null;
  const change = (c: Course) => {
    setCourse(c);
    setSaved(false);
    line.current = line.current.then(async () => {
      const r = await http<{ version: number }>("PUT", `/api/courses/${id}`, { base: version.current, course: c });
      if (r.status === 200) {
        version.current = r.body.version;
        setError(null);
        setSaved(true);
      } else setError(r.body.message ?? "The course is not saved.");
    });
  };
  return {
    course,
    view: worked?.view ?? null,
    damaged: worked?.damaged ?? [],
    titles: new Map(projects.map((p) => [p.id, p.title])),
    projects,
    saved,
    error,
    change,
    flush: () => line.current,
    again,
  };
}
