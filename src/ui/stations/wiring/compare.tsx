"use client";
import { Tick } from "@/ui/shared/tick";
import { when } from "@/ui/shared/when";
import { useEffect, useMemo, useState } from "react";
import { toast } from "sonner";
import type { Project } from "@/core/project";
import type { Rewire } from "@/core/build/compare";
import type { RunRow } from "@/core/build/runsheet";
import { Swatch } from "@/ui/shared/wire-colours";
import { core } from "@/ui/state/core";
import { http } from "@/ui/state/http";
import { useProject } from "@/ui/state/project";
import { Select } from "@/ui/shared/select";
import { Label } from "@/ui/shared/label";

interface Revision {
  version: number;
  summary: string;
  at: string;
  kept: "wired" | "saved" | null;
  name: string | null;
}

function Wires({ title, rows, none }: { title: string; rows: RunRow[]; none: string }) {
  const [done, setDone] = useState<ReadonlySet<string>>(new Set());
  return (
    <section aria-label={title}>
      <h2 className="border-b border-ink font-bold">
        {title} <span className="num font-normal">{rows.length || ""}</span>
      </h2>
      {!rows.length && <p className="py-1 text-soft">{none}</p>}
      <ul>
        {rows.map((r) => (
          <li key={r.id + r.holeA + r.holeB} className="flex items-center gap-3 border-b border-line py-1">
            <Tick
              says={`${title}: ${r.from} to ${r.to}`}
              checked={done.has(r.id)}
              change={() =>
                setDone((d) => {
                  const next = new Set(d);
                  if (!next.delete(r.id)) next.add(r.id);
                  return next;
                })
              }
            />
            {r.colour && <Swatch colour={r.colour} />}
            <span>
              <strong>{r.net}</strong> <span className="num">{r.holeA || r.from}</span> to{" "}
              <span className="num">{r.holeB || r.to}</span>
              <span className="block text-sm text-soft">
                {r.fromWords} → {r.toWords}
              </span>
              <span className="block text-sm text-soft">
                step {r.step}
                {r.length_cm > 0 && `, ${r.length_cm} cm`}, {r.endA} to {r.endB}
                {r.note && `. ${r.note}`}
              </span>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Compare: what a bench that was wired after an older version needs now: wires to take off, wires to lay. */
export function Compare() {
  const { id, project, version, saveNow } = useProject();
  const [list, setList] = useState<Revision[]>([]);
  const [from, setFrom] = useState<string>(project.savedPlan ? "saved" : "");
  const [to, setTo] = useState<string>("now");
  const [known, setKnown] = useState<Record<string, Project>>({});
  const [result, setResult] = useState<Rewire | null>(null);
  useEffect(() => {
    void saveNow().then(async () => {
      const r = await http<Revision[]>("GET", `/api/projects/${id}/revisions`);
      if (r.status === 200) setList(r.body);
    });
  }, [id, version, saveNow]);
  useEffect(() => {
    let gone = false;
    for (const v of [from, to]) {
      if (!/^\d+$/.test(v) || known[v]) continue;
      void http<{ document: Project }>("GET", `/api/projects/${id}/revisions/${v}`).then((r) => {
        if (gone) return;
        if (r.status === 200) setKnown((k) => ({ ...k, [v]: r.body.document }));
        else toast.error(r.body.message ?? "That version can't be read.");
      });
    }
    return () => {
      gone = true;
    };
  }, [from, to, id, known]);
  const [before, after] = useMemo(() => {
    const at = (v: string): Project | null =>
      v === "now"
        ? project
        : v === "saved"
          ? project.savedPlan
            ? { ...project, links: project.savedPlan.links }
            : null
          : (known[v] ?? null);
    return [at(from), at(to)];
  }, [from, to, known, project]);
  useEffect(() => {
    let gone = false;
    if (before && after)
      void core()
        .compareWiring(before, after)
        .then((r) => !gone && setResult(r));
    return () => {
      gone = true;
    };
  }, [before, after]);
  const shown = before && after ? result : null;
  const older = list
    .filter((r) => r.version !== version && r.kept)
    .map((r) => ({
      value: String(r.version),
      name: `version ${r.version}, ${r.kept === "wired" ? "wired" : r.name ? `saved as ${r.name}` : "plan saved"}, after: ${r.summary || "import"}`,
    }));
  return (
    <div className="mt-3">
      <Label className="inline-flex items-center gap-2">
        The bench is wired after
        <Select
          label="Version to compare with"
          value={from}
          empty="choose a version"
          options={[
            ...(project.savedPlan
              ? [
                  {
                    value: "saved",
                    name: `${project.savedPlan.name ? `the plan ${project.savedPlan.name},` : "the plan"} saved on ${when(project.savedPlan.at)}`,
                  },
                ]
              : []),
            ...older,
          ]}
          onChange={setFrom}
        />
      </Label>
      <Label className="ml-4 inline-flex items-center gap-2">
        and shall be wired after
        <Select
          label="Version to go to"
          value={to}
          options={[{ value: "now", name: "the plan as it is now" }, ...older]}
          onChange={setTo}
        />
      </Label>
      {!before && (
        <p className="mt-3 max-w-2xl text-soft">
          After a change, this is the list for a bench that is already wired: what comes off, what goes on. For
          instance: move one button to another pin, and one wire comes off and one goes on; the other forty stay.
          Versions that somebody wired after (a tick is enough) or whose plan was saved are offered.
        </p>
      )}
      {shown && (
        <>
          <p className="mt-2" data-testid="rewire-sum">
            <strong>Unplug everything first.</strong> <span className="num">{shown.same}</span> wires stay,{" "}
            <span className="num">{shown.takeOff.length}</span> come off,{" "}
            <span className="num">{shown.lay.length}</span> are laid.
          </p>
          <div className="mt-2 grid gap-x-8 gap-y-4 lg:grid-cols-2">
            <Wires title="Take off" rows={shown.takeOff} none="No wire comes off." />
            <Wires title="Lay" rows={shown.lay} none="No wire is laid." />
          </div>
          {[
            ["Parts that come off", shown.partsOff.map((p) => `${p.ref} ${p.name}`)],
            ["New parts", shown.partsOn.map((p) => `${p.ref} ${p.name}${p.to ? `: ${p.to}` : ""}`)],
            [
              "Other values and settings",
              shown.changed.map((p) => `${p.ref} ${p.name}, ${p.what}: ${p.from} → ${p.to}`),
            ],
            ["Parts that move on the breadboard", shown.partsMoved.map((p) => `${p.ref} ${p.name}: ${p.to}`)],
          ].map(([title, rows]) =>
            rows!.length ? (
              <section key={title as string} className="mt-3">
                <h2 className="font-bold">{title}</h2>
                <ul>
                  {(rows as string[]).map((t) => (
                    <li key={t}>{t}</li>
                  ))}
                </ul>
              </section>
            ) : null,
          )}
        </>
      )}
    </div>
  );
}
