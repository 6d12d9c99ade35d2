"use client";
import { usePathname } from "next/navigation";
import { useEffect, useState } from "react";
import type { Finding, Fix } from "@/core/checks";
import { SEVERITIES } from "@/core/checks/types";
import type { Preview } from "@/workers/api";
import { Fold } from "@/ui/shared/fold";
import { Glossed } from "@/ui/shared/glossed";
import { SeverityMark } from "@/ui/shared/severity";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";

const key = (f: Finding) => `${f.rule}|${f.at.join("|")}`;
const UNITS: Record<string, string> = { V: "V", mA: "mA", ohm: "Ω" };

/** `marginHigh_V` → `margin high`, with its unit. */
function evidenceWords(name: string): [string, string] {
  const m = /^(.*)_(V|mA|ohm)$/.exec(name);
  const words = (m?.[1] ?? name).replace(/([a-z])([A-Z])/g, "$1 $2").replace(/^VI([HL])$/, "VI$1");
  return [/^VI[HL]$/.test(words) ? words : words.toLowerCase(), m ? UNITS[m[2]!]! : ""];
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

function Acknowledge({ finding }: { finding: Finding }) {
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
function Grounds({ finding }: { finding: Finding }) {
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
                .explain(s.project, key(finding))
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

function Entry({ finding, open, toggle }: { finding: Finding & { says: string }; open: boolean; toggle(): void }) {
  const s = useProject();
  return (
    <li
      className={`border-b border-line px-3 py-2 ${open ? "bg-sheet" : ""}`}
      onMouseEnter={() => s.light(finding.at)}
      onMouseLeave={() => s.light([])}
      onFocus={() => s.light(finding.at)}
      onBlur={() => s.light([])}
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
          {/* What to do comes first and is the largest; the reasons follow for those who want them. */}
          {finding.fixes.length > 0 && (
            <ul className="mb-2">
              {finding.fixes.map((f) => (
                <FixRow key={f.id} fix={f} />
              ))}
            </ul>
          )}
          <p className="text-sm text-soft">
            <Glossed text={finding.says} />
          </p>
          <Fold className="mt-1 text-sm" title="the sums">
            <dl className="mt-1 grid grid-cols-[auto_1fr] gap-x-3 text-sm">
              {Object.entries(finding.evidence).map(([k, v]) => {
                const [words, unit] = evidenceWords(k);
                return (
                  <div key={k} className="contents">
                    <dt className="text-soft">{words}</dt>
                    <dd className={typeof v === "number" ? "num" : "break-words"}>
                      {v} {unit}
                    </dd>
                  </div>
                );
              })}
              <dt className="text-soft">rule</dt>
              <dd className="font-mono">{finding.rule}</dd>
            </dl>
          </Fold>
          <Grounds finding={finding} />
          {finding.severity !== "stop" && <Acknowledge finding={finding} />}
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
const byGrade = (list: readonly Finding[]): string =>
  SEVERITIES.flatMap((s) => {
    const n = list.filter((f) => f.severity === s).length;
    return n ? [`${n} ${s}${n === 1 ? "" : "s"}`] : [];
  }).join(", ");

const NONE: ReadonlySet<string> = new Set();

/** Fixes that were tried after the findings were shown, and do not hold up: they are taken back. */
function useFailedFixes(): ReadonlySet<string> {
  const { project } = useProject();
  const [tried, setTried] = useState<{ project: unknown; failed: ReadonlySet<string> }>({
    project: null,
    failed: NONE,
  });
  useEffect(() => {
    let gone = false;
    const wait = setTimeout(() => {
      void core()
        .failedFixes(project)
        .then((list) => {
          if (!gone) setTried({ project, failed: new Set(list) });
        });
    }, TRY_AFTER_MS);
    return () => {
      gone = true;
      clearTimeout(wait);
    };
  }, [project]);
  return tried.project === project ? tried.failed : NONE;
}
/** Edits come in quick succession: only what stands is tried. */
const TRY_AFTER_MS = 400;

/** The ledger: findings with their numbers, their rule in plain words, and fixes that apply themselves. */
export function Ledger() {
  const s = useProject();
  const station = usePathname().split("/").pop() ?? "";
  const [open, setOpen] = useState<string | null>(null);
  const here = HERE[station];
  const failed = useFailedFixes();
  const list = s.view.findings
    .map((f) => ({ ...f, fixes: f.fixes.filter((x) => !failed.has(`${key(f)}#${x.id}`)) }))
    .sort(
      (a, b) =>
        SEVERITIES.indexOf(a.severity) - SEVERITIES.indexOf(b.severity) ||
        Number(here?.test(b.rule) ?? 0) - Number(here?.test(a.rule) ?? 0),
    );
  const first = list[0] ? key(list[0]) : null;
  useEffect(() => setOpen(first), [first]);
  return (
    <aside
      id="ledger"
      aria-label="Ledger of findings"
      className="flex w-80 shrink-0 flex-col overflow-auto border-l border-ink bg-paper max-md:w-full"
    >
      <h2 className="border-b border-ink px-3 py-2 text-lg">
        Ledger{" "}
        <span className="text-base font-normal text-soft">{list.length ? byGrade(list) : "nothing to report"}</span>
      </h2>
      {list.length === 0 && s.project.parts.length > 0 && (
        <p className="px-3 py-3 text-soft">
          Every level, current, supply, bus and pin was checked at its worst case. Nothing stands against this plan.
        </p>
      )}
      <ul>
        {list.map((f) => (
          <Entry
            key={key(f)}
            finding={f}
            open={open === key(f)}
            toggle={() => setOpen(open === key(f) ? null : key(f))}
          />
        ))}
      </ul>
    </aside>
  );
}
