import type { ReactNode } from "react";
import { fetchFile } from "@/ui/shared/fetch-file";
import { toast } from "sonner";
import type { Fix } from "@/core/checks/types";
import { TERMS, type Term } from "@/core/glossary";
import type { Project } from "@/core/project";
import { turnTheme } from "@/ui/shared/theme";
import { questions } from "@/ui/stations/brief/rules";
import { STATIONS } from "@/ui/stations/list";
import { LESSON_PRINTS } from "@/ui/stations/handout/print-list";
import { PRINTS } from "@/ui/stations/wiring/print-list";
import { askRemark } from "@/ui/state/remark";
import { core } from "@/ui/state/core";
import type { ProjectState } from "@/ui/state/project";
import type { View } from "@/workers/view";

export const GROUPS = [
  "Last",
  "Stations",
  "Do",
  "Fixes",
  "Parts",
  "Pins",
  "Nets",
  "Prints",
  "Settings",
  "Words",
  "Catalogue",
] as const;

/** One thing that the palette reaches or does. */
export interface Action {
  id: string;
  group: (typeof GROUPS)[number];
  /** What it is found by: its names, with `|` between them. */
  words: string;
  label: ReactNode;
  run(): void | Promise<unknown>;
  /** Stays open: the answer stands in the palette itself. */
  stays?: boolean;
}

/** What the actions need of the page. */
export interface Hands {
  s: ProjectState;
  go(station: string, light?: string[]): void;
  push(path: string): void;
  show(word: Term): void;
}

const soft = (text: ReactNode) => <span className="min-w-0 truncate text-soft">{text}</span>;

function doing({ s, push }: Hands): Action[] {
  const one = (id: string, name: string, run: Action["run"], more = ""): Action => ({
    id,
    group: "Do",
    words: `${name} ${more}`,
    label: name,
    run,
  });
  return [
    one("plan", "Plan all open pins", () =>
      s.run(async (p) => {
        const r = await core().plan(p);
        if (r.clash) toast.error(r.clash, { duration: 15_000 });
        else if (r.leftOpen) toast.warning(r.leftOpen, { duration: 20_000 });
        return r.clash ? null : r;
      }),
    ),
    one("join", "Join two points", () => push(`/p/${s.id}/wiring?show=wires`), "wire by hand"),
    ...(s.canUndo ? [one("undo", `Undo: ${s.canUndo}`, () => s.undo())] : []),
    ...(s.canRedo ? [one("redo", `Redo: ${s.canRedo}`, () => s.redo())] : []),
    one("list", "Paste a parts list", () => push(`/p/${s.id}/parts?show=list`), "import bill of materials"),
    one("drawer", "My drawer", () => push(`/p/${s.id}/parts?show=drawer`), "owned parts resistors capacitors"),
    one("own", "Make a part of your own", () => push(`/p/${s.id}/parts?show=own`), "own parts"),
    one(
      "download",
      "Download the whole plan",
      () => s.saveNow().then(() => fetchFile(`/api/projects/${s.id}/plan`, "The plan")),
      "zip export files",
    ),
    one(
      "lesson",
      "Download the lesson pack",
      () => s.saveNow().then(() => fetchFile(`/api/projects/${s.id}/lesson`, "The lesson")),
      "teacher class sheets slides zip",
    ),
    one("remark", "Remark on this plan", () => askRemark({ kind: "plan" }), "review comment"),
    one("patterns", "Patterns to begin with", () => push("/patterns"), "examples templates new project"),
    one("courses", "Courses", () => push("/courses"), "several projects one kit class"),
    one("sums", "Bench sums", () => window.location.assign("/bench-sums"), "calculator resistor divider"),
    one("home", "All projects", () => push("/")),
  ];
}

const stations = ({ go }: Hands): Action[] =>
  STATIONS.map((st, i) => ({
    id: `station ${st.id}`,
    group: "Stations",
    words: `${st.name} station ${i + 1}`,
    label: st.name,
    run: () => go(st.id),
  }));

const prints = ({ s }: Hands): Action[] =>
  [...PRINTS, ...LESSON_PRINTS].map((p) => ({
    id: `print ${p.what}`,
    group: "Prints",
    words: `print ${p.name} pdf ${p.says}`,
    label: (
      <>
        {p.name} {soft(p.says)}
      </>
    ),
    run: () => s.saveNow().then(() => fetchFile(`/api/projects/${s.id}/print?what=${p.what}`, "The print")),
  }));

const words = ({ show }: Hands): Action[] =>
  TERMS.map((t) => ({
    id: `word ${t.term}`,
    group: "Words",
    words: [t.term, ...(t.also ?? []), `word ${t.term}`].join("|"),
    label: (
      <>
        <span className="min-w-32 shrink-0">{t.term}</span> {soft(t.gloss)}
      </>
    ),
    run: () => show(t),
    stays: true,
  }));

function settings({ s }: Hands): Action[] {
  const theme: Action = {
    id: "theme",
    group: "Settings",
    words: "theme dark light evening bench paper",
    label: "Light paper or dark",
    run: () => void turnTheme(),
  };
  const rules = questions.flatMap((q) =>
    q.choices.map((c): Action => {
      const now = (s.project.houseRules[q.key] ?? q.choices[0]!.value) === c.value;
      return {
        id: `rule ${q.key} ${c.value}`,
        group: "Settings",
        words: `house rule ${q.question} ${c.says}`,
        label: (
          <>
            <span className="min-w-0 truncate">{q.question}</span> {soft(`${c.says}${now ? " (now)" : ""}`)}
          </>
        ),
        run: () => s.edit({ type: "setHouseRules", rules: { [q.key]: c.value } as Project["houseRules"] }),
      };
    }),
  );
  return [theme, ...rules];
}

const fixes = ({ s }: Hands, all: Record<string, Fix[]>): Action[] =>
  s.view.findings.flatMap((f) =>
    (all[f.key] ?? []).map((x): Action => ({
      id: `fix ${f.key} ${x.id}`,
      group: "Fixes",
      words: `fix ${x.label}|${f.rule} ${f.at.join(" ")} ${x.label}`,
      label: (
        <>
          <span className="shrink-0">Fix {f.severity}:</span> <span className="min-w-0 truncate">{x.label}</span>
        </>
      ),
      // Tried on a copy before it is done, as in the ledger.
      run: async () => {
        if ((await core().failedFixes(s.project, f.key)).includes(x.id))
          return void toast.error(`${x.label}: tried, and it does not mend this here. Nothing was changed.`);
        await s.edit({ type: "batch", edits: x.edits });
      },
    })),
  );

/** Parts, pins and nets of the project, once their slices are here. */
function places({ go }: Hands, view: Partial<View>): Action[] {
  const one = (
    group: Action["group"],
    id: string,
    at: string,
    words: string,
    label: ReactNode,
    light: string[],
  ): Action => ({
    id: `${group} ${id}`,
    group,
    words,
    label,
    run: () => go(at, light),
  });
  return [
    ...(view.parts ?? []).map((p) =>
      one(
        "Parts",
        p.ref,
        "parts",
        `${p.ref} ${p.label} ${p.name}`,
        <>
          <span className="num">{p.ref}</span> {p.label} {soft(p.name)}
        </>,
        [p.ref],
      ),
    ),
    ...(view.lattices ?? []).flatMap((l) =>
      l.rows.map((r) =>
        one(
          "Pins",
          r.id,
          "pins",
          `pin ${r.id} ${r.part} ${r.at ?? ""}`,
          <>
            <span className="num">{r.id}</span> {r.part} {r.at && `on ${r.at}`}
          </>,
          [r.id],
        ),
      ),
    ),
    ...[...new Set(view.nets ?? [])].map((n) => one("Nets", n, "wiring", `net ${n}`, n, [n])),
  ];
}

/** Everything that can be reached or done here, in the order of the groups. */
export const actions = (h: Hands, view: Partial<View>, all: Record<string, Fix[]>): Action[] => [
  ...stations(h),
  ...doing(h),
  ...fixes(h, all),
  ...places(h, view),
  ...prints(h),
  ...settings(h),
  ...words(h),
];
