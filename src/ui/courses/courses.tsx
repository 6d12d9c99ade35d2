"use client";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useCallback, useEffect, useState } from "react";
import { toast } from "sonner";
import { Label } from "@/ui/shared/label";
import { Problems } from "@/ui/shared/open-file";
import { when } from "@/ui/shared/when";
import { http } from "@/ui/state/http";

interface Row {
  id: string;
  title: string;
  updated_at: string;
}

/** Courses of this machine: several projects that share one kit. */
export function Courses() {
  const router = useRouter();
  const [rows, setRows] = useState<Row[] | null>(null);
  const [title, setTitle] = useState("");
  const [error, setError] = useState<string[]>([]);
  const load = useCallback(async () => {
    const r = await http<Row[]>("GET", "/api/courses");
    if (r.status === 200) setRows(r.body);
    else setError([r.body.message ?? "The list can't be read."]);
  }, []);
  useEffect(() => void load(), [load]);
  const start = async () => {
    const r = await http<{ id: string }>("POST", "/api/courses", { title: title.trim() });
    if (r.status === 201) router.push(`/courses/${r.body.id}`);
    else setError([r.body.message ?? "That did not work."]);
  };
  const remove = async (row: Row) => {
    const kept = await http<{ course: unknown }>("GET", `/api/courses/${row.id}`);
    const r = await http("DELETE", `/api/courses/${row.id}`);
    if (r.status !== 200) return toast.error(r.body.message ?? "Not deleted.");
    await load();
    toast(`"${row.title}" is deleted; its projects are still there.`, {
      duration: 15_000,
      ...(kept.status === 200 && {
        action: {
          label: "Bring it back",
          onClick: () =>
            void (async () => {
              const made = await http<{ id: string }>("POST", "/api/courses", { title: row.title });
              if (made.status === 201)
                await http("PUT", `/api/courses/${made.body.id}`, { base: 1, course: kept.body.course });
              await load();
            })(),
        },
      }),
    });
  };
  return (
    <main className="mx-auto max-w-4xl px-6 py-8">
      <Link href="/" className="quiet">
        Young Lattice
      </Link>
      <h1 className="text-3xl">Courses</h1>
      <p className="max-w-xl text-soft">
        Several projects that share one kit: what to have, what to order by which week, what lies in which box, what
        comes back and how it is tested.
      </p>
      <form
        className="mt-6 flex flex-wrap items-end gap-3 border-y border-ink py-4"
        onSubmit={(e) => {
          e.preventDefault();
          if (title.trim()) void start();
        }}
      >
        <Label className="grow">
          <span className="block text-soft">What is the course called?</span>
          <input
            className="w-full"
            value={title}
            maxLength={120}
            placeholder="Light and motion, autumn"
            onChange={(e) => setTitle(e.target.value)}
          />
        </Label>
        <button className="btn-main" disabled={!title.trim()}>
          Begin a course
        </button>
      </form>
      <Problems lines={error} />
      <ul className="mt-4" aria-label="Courses">
        {rows?.map((r) => (
          <li key={r.id} className="flex items-baseline justify-between gap-4 border-b border-line py-2">
            <Link href={`/courses/${r.id}`} className="text-lg hover:text-accent">
              {r.title}
            </Link>
            <span className="text-sm whitespace-nowrap text-soft">
              {when(r.updated_at)}{" "}
              <button className="quiet ml-3" aria-label={`Delete ${r.title}`} onClick={() => void remove(r)}>
                delete
              </button>
            </span>
          </li>
        ))}
      </ul>
      {rows?.length === 0 && (
        <p className="py-3 text-soft">No course yet. A course of three patterns on one kit takes two minutes.</p>
      )}
    </main>
  );
}
