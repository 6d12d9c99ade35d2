"use client";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useCallback, useEffect, useState } from "react";
import { toast } from "sonner";
import { OpenFile, Problems } from "@/ui/shared/open-file";
import { ThemeButton } from "@/ui/shared/theme";
import { core } from "@/ui/state/core";
import { http } from "@/ui/state/http";
import { later } from "@/ui/shared/later";
import { Projects, type Row } from "./projects";
import { Fold } from "@/ui/shared/fold";
import { Label } from "@/ui/shared/label";

const OpenText = later(() => import("./open-text").then((m) => m.OpenText));
const Keeping = later(() => import("./keeping").then((m) => m.Keeping));

const MAX_FILE = 2_000_000;

/** All projects on this machine: open one, start one, bring one in from a file. */
export function Home() {
  const router = useRouter();
  const [rows, setRows] = useState<Row[] | null>(null);
  const [error, setError] = useState<string[]>([]);
  const [title, setTitle] = useState("");

  const load = useCallback(async () => {
    const r = await http<Row[]>("GET", "/api/projects");
    if (r.status === 200) setRows(r.body);
    else setError([r.body.message ?? "The list can't be read."]);
  }, []);
  useEffect(() => void load(), [load]);

  const open = async (data: object, station: string) => {
    const r = await http<{ id: string; problems?: { path: string; message: string }[] }>("POST", "/api/projects", data);
    if (r.status === 201) router.push(`/p/${r.body.id}/${station}`);
    else
      setError([
        r.body.message ?? "That did not work.",
        ...(r.body.problems ?? []).map((p) => `${p.path}: ${p.message}`),
      ]);
  };

  const bringIn = async (f: File | undefined) => {
    if (!f) return;
    setError([]);
    if (f.size > MAX_FILE)
      return setError([`${f.name}: the file is larger than ${MAX_FILE / 1e6} MB; a project file is far smaller.`]);
    const result = await core().read(await f.text());
    if (result.ok) await open({ document: result.project }, "parts");
    else
      setError([
        `${f.name} was not opened:`,
        ...result.problems.slice(0, 12).map((p) => (p.path ? `${p.path}: ${p.message}` : p.message)),
      ]);
  };

  /** A copy under a name of its own, without what was done on the bench: that belongs to the one that was built. */
  const copy = async (row: Row) => {
    const kept = await http<{ document: Record<string, unknown> }>("GET", `/api/projects/${row.id}`);
    if (kept.status !== 200) return toast.error(kept.body.message ?? "Not copied.");
    const title = `${row.title}, copy`.slice(0, 120);
    const r = await http("POST", "/api/projects", { document: { ...kept.body.document, title, bench: [] } });
    if (r.status !== 201) return toast.error(r.body.message ?? "Not copied.");
    await load();
    toast(`"${title}" is at the top of the list.`);
  };

  const remove = async (row: Row) => {
    const r = await http("DELETE", `/api/projects/${row.id}`);
    if (r.status !== 200) return toast.error(r.body.message ?? "Not deleted.");
    await load();
    toast(`"${row.title}" is in the bin.`, {
      duration: 15_000,
      action: {
        label: "Bring it back",
        onClick: () => void http("POST", "/api/bin", { id: row.id, do: "bring back" }).then(load),
      },
    });
  };

  return (
    <main className="mx-auto max-w-6xl px-6 py-10">
      <div className="flex items-start justify-between">
        <div>
          <h1 className="text-3xl">Young Lattice</h1>
          <p className="max-w-xl text-soft">
            Name the parts you have. The pins, supplies, wires, program and bench checks are worked out, with the
            numbers.
          </p>
        </div>
        <ThemeButton />
      </div>

      <form
        className="mt-8 flex flex-wrap items-end gap-3 border-y border-ink py-4"
        onSubmit={(e) => {
          e.preventDefault();
          void open({ title: title.trim() || "Untitled project" }, "parts");
        }}
      >
        <Label className="grow">
          <span className="block text-soft">What will it be?</span>
          <input
            className="w-full"
            value={title}
            maxLength={120}
            placeholder="Railway crossing with two lamps"
            onChange={(e) => setTitle(e.target.value)}
          />
        </Label>
        <button className="btn-main">Start a project</button>
        <OpenFile says="Open a file…" label="Project file" accept=".json,application/json" open={bringIn} />
      </form>
      <Fold className="mt-2" title="Open a plan as text">
        <OpenText
          fail={setError}
          open={async (json) => {
            const result = await core().read(json);
            if (result.ok) await open({ document: result.project }, "parts");
            else
              setError([
                "The text was not opened:",
                ...result.problems.slice(0, 12).map((p) => `${p.path}: ${p.message}`),
              ]);
          }}
        />
      </Fold>
      <Problems lines={error} />
      <p className="mt-3">
        Nothing in mind yet, or a class to teach?{" "}
        <Link href="/patterns" className="underline">
          Patterns
        </Link>{" "}
        are small projects that are sound as they stand; a{" "}
        <Link href="/courses" className="underline">
          course
        </Link>{" "}
        puts several on one kit. A card with five letters? That is{" "}
        <Link href="/bench" className="underline">
          your bench
        </Link>
        .
      </p>
      <p className="mt-1">
        Only a resistor or a transistor stage to work out?{" "}
        <Link href="/bench-sums" className="underline">
          Bench sums
        </Link>{" "}
        do that without a project.
      </p>

      <Projects rows={rows} copy={(r) => void copy(r)} remove={(r) => void remove(r)} />
      {rows !== null && <Keeping changed={rows} load={load} />}
    </main>
  );
}
