"use client";
import { usePathname } from "next/navigation";
import { useEffect, useMemo, useState } from "react";
import { evidenceSentences } from "@/core/checks/evidence";
import { SEVERITIES, type Fix } from "@/core/checks/types";
import type { Project, RemarkAt } from "@/core/project";
import type { FindingView } from "@/workers/view";
import type { Preview } from "@/workers/api";
import { later } from "@/ui/shared/later";
import { Fold } from "@/ui/shared/fold";
import { Glossed } from "@/ui/shared/glossed";
import { Place } from "@/ui/shared/place";
import { SeverityMark } from "@/ui/shared/severity";
import { core } from "@/ui/state/core";
import { askRemark, onRemark } from "@/ui/state/remark";
import { useProject } from "@/ui/state/project";

/** Only where somebody has said something, or wants to. */
const Remarks = later(() => import("./remarks").then((m) => m.Remarks));

function RemarksOrNone() {
  const { project } = useProject();
  const [asked, setAsked] = useState<RemarkAt | null>(null);
  useEffect(() => onRemark(setAsked), []);
  if (asked || project.remarks?.length) return <Remarks asked={asked} ask={setAsked} />;
  return (
    <p className="border-b border-line px-3 py-1.5 text-sm">
      <button className="quiet text-soft" onClick={() => setAsked({ kind: "plan" })}>
        remark on this plan
      </button>
    </p>
  );
}

function FixRow({ fix }: { fix: Fix }) {
  const s = useProject();
  const [preview, setPreview] = useState<Preview | null>(null);
  const edit = { type: "batch" as const, edits: fix.edits };
  return (
    <li className="mt-1.5">
      <p className="text-base leading-snug font-bold">{fix.label}</p>
      <div className="mt-1 flex gap-2">
        <button className="btn-main" onClick={() => void s.edit(edit)}>
          Apply
        </button>
        <button
          className="btn"
          aria-expanded={preview !== null}
          onClick={() => void (preview ? setPreview(null) : core().preview(s.project, edit).then(setPreview))}
        >
          What changes
        </button>
      </div>
      {preview && (
        <div className="mt-1 border-l-2 border-accent pl-2 text-sm">
          {preview.changes.map((c) => (
            <p key={c} className="font-mono break-words">
              {c}
            </p>
          ))}
          {preview.come.map((c) => (
            <p key={c}>then new: {c}</p>
          ))}
          <p className="font-bold">{preview.verdict}</p>
        </div>
      )}
    </li>
  );
}

function Acknowledge({ finding }: { finding: FindingView }) {
  const s = useProject();
  const [reason, setReason] = useState<string | null>(null);
  const send = (text: string) => void s.edit({ type: "acknowledge", rule: finding.rule, at: finding.at, reason: text });
  if (finding.acknowledged)
    return (
      <p className="mt-1 text-sm">
        Accepted: {finding.acknowledged}{" "}
        <button className="quiet" onClick={() => send("")}>
          take back
        </button>
      </p>
    );
  if (reason === null)
    return (
      <button className="quiet mt-2 text-sm text-soft" onClick={() => setReason("")}>
        accept with a reason
      </button>
    );
  return (
    <form
      className="mt-2 flex gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (reason.trim()) send(reason.trim());
      }}
    >
      <input
        autoFocus
        aria-label="Reason"
        className="min-w-0 grow"
        placeholder="why it is all right here"
        value={reason}
        maxLength={300}
        onChange={(e) => setReason(e.target.value)}
      />
      <button className="btn" disabled={!reason.trim()}>
        Accept
      </button>
    </form>
  );
}

/** How a finding comes about: the way of the voltage or current and the sums, from the solved circuit. */
function Grounds({ finding }: { finding: FindingView }) {
  const s = useProject();
  const [lines, setLines] = useState<string[] | null>(null);
  useEffect(() => setLines(null), [s.project]);
  return (
    <>
      <button
        className="quiet mt-1 block text-sm"
        aria-expanded={lines !== null}
        onClick={() =>
          void (lines
            ? setLines(null)
            : core()
                .explain(s.project, finding.key)
                .then((all) => setLines(solvedPart(all))))
        }
      >
        how it comes about
      </button>
      {lines && (
        <div className="mt-1 border-l-2 border-line pl-2 text-sm" data-testid="grounds">
          {lines.length ? (
            lines.map((l, i) => (
              <p key={i} className={l.startsWith("  ") ? "pl-2 break-words" : "font-bold"}>
                {l.trim()}
              </p>
            ))
          ) : (
            <p>No voltage or current decides this: it follows from the plan alone.</p>
          )}
        </div>
      )}
    </>
  );
}

/** Of an explanation, what the ledger does not show already: the solved numbers and the sums. */
function solvedPart(all: string[]): string[] {
  const from = all.indexOf("the circuit, solved:");
  const to = all.indexOf("what would help:");
  return from < 0 ? [] : all.slice(from, to < 0 ? undefined : to);
}

/** What can be done about a finding: shown at once, tried on a copy, and taken back when it does not hold up. */
function Fixes({ finding }: { finding: FindingView }) {
  const { project } = useProject();
  const [fixes, setFixes] = useState<Fix[]>([]);
  useEffect(() => {
    let gone = false;
    void (async () => {
      const all = (await core().fixes(project, finding.key))[finding.key] ?? [];
      if (gone) return;
      setFixes(all);
      if (!all.length) return;
      // Edits come in quick succession: only what stands is tried.
      await new Promise((r) => setTimeout(r, TRY_AFTER_MS));
      if (gone) return;
      const failed = new Set(await core().failedFixes(project, finding.key));
      if (!gone && failed.size) setFixes(all.filter((f) => !failed.has(f.id)));
    })();
    return () => {
      gone = true;
    };
  }, [project, finding.key]);
  return fixes.length ? (
    <ul className="mb-2">
      {fixes.map((f) => (
        <FixRow key={f.id} fix={f} />
      ))}
    </ul>
  ) : null;
}
const TRY_AFTER_MS = 400;
/** So many places are named below a finding; the rest are lit. */
const MOST_PLACES = 6;

function Entry({ finding, open, toggle }: { finding: FindingView; open: boolean; toggle(): void }) {
  const { light } = useProject();
  return (
    <li
      className={`border-b border-line px-3 py-2 ${open ? "bg-sheet" : ""}`}
      onMouseEnter={() => light(finding.at)}
      onMouseLeave={() => light([])}
      onFocus={() => light(finding.at)}
      onBlur={() => light([])}
      data-testid={`finding-${finding.rule}`}
    >
      <button className="block w-full text-left" aria-expanded={open} onClick={toggle}>
        <SeverityMark severity={finding.severity} />{" "}
        <span className="font-mono text-sm text-soft">{finding.at.slice(0, 2).join(" → ")}</span>
        {!open && <span className="block">{finding.message}</span>}
      </button>
      {open && (
        <div>
          <p className="mb-1">
            <Glossed text={finding.message} />
          </p>
          <p className="mb-1 flex flex-wrap gap-x-3 text-sm text-soft">
            {finding.at.slice(0, MOST_PLACES).map((at) => (
              <Place key={at} of={at} className="font-mono underline" />
            ))}
          </p>
          {/* What to do comes first and is the largest; the reasons follow for those who want them. */}
          <Fixes finding={finding} />
          <p className="text-sm text-soft">
            <Glossed text={finding.says} />
          </p>
          <Fold className="mt-1 text-sm" title="the sums">
            <ul className="mt-1 text-sm">
              {evidenceSentences(finding).map((line) => (
                <li key={line} className="break-words">
                  {line}
                </li>
              ))}
              <li className="text-soft">
                The rule is <span className="font-mono">{finding.rule}</span>.
              </li>
            </ul>
          </Fold>
          <Grounds finding={finding} />
          {finding.severity !== "stop" && <Acknowledge finding={finding} />}
          <button
            className="quiet mt-1 block text-sm text-soft"
            onClick={() => askRemark({ kind: "finding", rule: finding.rule, at: finding.at })}
          >
            remark on it
          </button>
        </div>
      )}
    </li>
  );
}

/** Of findings of one gravity, those that matter most at a station come first there; a stop is first everywhere. */
const HERE: Record<string, RegExp> = {
  pins: /^pin\./,
  power: /^(level|power|current|led|load|i2c|spi|uart|onewire|adc)\./,
  wiring: /^(breadboard|wire|power|net)\./,
};

/** "1 stop, 2 risks": how many of each grade, the gravest first. */
const byGrade = (list: readonly FindingView[]): string =>
  SEVERITIES.flatMap((s) => {
    const n = list.filter((f) => f.severity === s).length;
    return n ? [`${n} ${s}${n === 1 ? "" : "s"}`] : [];
  }).join(", ");

/** Findings of one part, or of what belongs to no single part. */
interface Group {
  ref: string | null;
  title: string;
  list: FindingView[];
}

/** Grouped by the part that a finding points at, rather one on the board's pins than the board itself; the group with the gravest comes first, and in it the gravest. */
function groups(
  list: readonly FindingView[],
  parts: Project["parts"],
  hosts: ReadonlySet<string>,
  here: RegExp | undefined,
): Group[] {
  const labels = new Map(parts.map((p) => [p.ref, p.label ? `${p.label} ` : ""]));
  const weight = (f: FindingView) => SEVERITIES.indexOf(f.severity) * 2 + (here?.test(f.rule) ? 0 : 1);
  const by = new Map<string, FindingView[]>();
  for (const f of [...list].sort((a, b) => weight(a) - weight(b))) {
    const refs = f.at.map((at) => at.split(".")[0]!).filter((r) => labels.has(r));
    const ref = refs.find((r) => !hosts.has(r)) ?? refs[0] ?? "";
    by.set(ref, [...(by.get(ref) ?? []), f]);
  }
  return [...by].map(([ref, own]) => ({
    ref: ref || null,
    title: ref ? `${labels.get(ref)}${ref}` : "The whole build",
    list: own,
  }));
}

/** The ledger: findings part by part with what to do, their rule in plain words, and fixes that apply themselves. */
export function Ledger() {
  const s = useProject();
  const station = usePathname().split("/").pop() ?? "";
  const [open, setOpen] = useState<string | null>(null);
  const { findings, hosts } = s.view;
  const { parts } = s.project;
  const list = useMemo(
    () => groups(findings, parts, new Set(hosts.map((h) => h.ref)), HERE[station]),
    [findings, parts, hosts, station],
  );
  const first = list[0]?.list[0]?.key ?? null;
  useEffect(() => setOpen(first), [first]);
  return (
    <aside
      id="ledger"
      aria-label="Ledger of findings"
      className="flex w-80 shrink-0 flex-col overflow-auto border-l border-ink bg-paper max-md:w-full"
    >
      <h2 className="border-b border-ink px-3 py-2 text-lg">
        Ledger{" "}
        <span className="text-base font-normal text-soft">
          {findings.length ? byGrade(findings) : "nothing to report"}
        </span>
      </h2>
      {findings.length === 0 && parts.length > 0 && (
        <p className="px-3 py-3 text-soft">
          Every level, current, supply, bus and pin was checked at its worst case. Nothing stands against this plan.
        </p>
      )}
      <RemarksOrNone />
      {list.map((g) => (
        <section key={g.ref ?? ""} aria-label={`Findings: ${g.title}`}>
          {list.length > 1 && (
            <h3 className="flex justify-between gap-2 border-b border-line bg-wash px-3 py-0.5 text-sm">
              <span className="min-w-0 truncate font-bold">{g.title}</span>
              <span className="shrink-0 text-soft">{byGrade(g.list)}</span>
            </h3>
          )}
          <ul>
            {g.list.map((f) => (
              <Entry
                key={f.key}
                finding={f}
                open={open === f.key}
                toggle={() => setOpen(open === f.key ? null : f.key)}
              />
            ))}
          </ul>
        </section>
      ))}
    </aside>
  );
}
