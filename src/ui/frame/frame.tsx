"use client";
import { afterPaint } from "@/ui/shared/after-paint";
import { later } from "@/ui/shared/later";
import Link from "next/link";
import { usePathname, useSearchParams } from "next/navigation";
import { count } from "@/core/quantity/count";
import { lastPlaces } from "@/ui/state/kept";
import { Ellipsis, PanelRightClose, PanelRightOpen, Redo2, Undo2, type LucideIcon } from "lucide-react";
import dynamic from "next/dynamic";
import { useEffect, useRef, useState, type ReactNode } from "react";
import { STATIONS, type StationId } from "@/ui/stations/list";
import { fetchAhead } from "@/ui/stations/station";
import { core } from "@/ui/state/core";
import { goTo } from "@/ui/state/go";
import { ProjectProvider, useProject, type ProjectState, type SaveState } from "@/ui/state/project";
import { ThemeButton } from "@/ui/shared/theme";
import { Ledger } from "./ledger";
import { Menu } from "@/ui/shared/menu";
import { PlaceCard } from "./place-card";
import { PlaceMenu } from "./place-menu";
import { Tip } from "@/ui/shared/tip";

/** Only where two changed the same: its script comes then. */
const StaleNotice = later(() => import("./stale").then((m) => m.StaleNotice));
const loadPalette = () => import("./palette/palette");
const Palette = dynamic(() => loadPalette().then((m) => m.Palette));
const Versions = dynamic(() => import("./versions").then((m) => m.Versions));
const Keys = dynamic(() => import("./keys").then((m) => m.Keys));

const SAVE_WORDS: Record<SaveState, string> = {
  saved: "saved",
  unsaved: "not saved yet",
  saving: "saving…",
  stale: "changed elsewhere",
  failed: "not saved",
};

/** Stations that have nothing to say before there are parts. */
const AFTER_PARTS: ReadonlySet<StationId> = new Set(["pins", "power", "wiring", "firmware", "bench"]);

/** What each station has to say for itself in the rail. */
function stationState(s: ProjectState, id: StationId, progress: Progress | null): string {
  const { view, project } = s;
  const of = (test: (rule: string) => boolean) => {
    const list = view.findings.filter(
      (f) => test(f.rule) && f.severity !== "note" && !(f.acknowledged && f.severity !== "stop"),
    );
    const worst = (["stop", "fault", "risk"] as const).find((x) => list.some((f) => f.severity === x));
    return worst ? count(list.filter((f) => f.severity === worst).length, worst) : "";
  };
  const share = (list: keyof Progress) => (progress ? `${progress[list].done} of ${progress[list].of}` : "…");
  // Nothing is sound or planned where there is nothing: say what comes first.
  if (!project.parts.length && AFTER_PARTS.has(id)) return "after the parts";
  const words: Record<StationId, () => string> = {
    brief: () => (project.brief.goal ? "written" : "empty"),
    parts: () => count(project.parts.length, "part"),
    board: () => (view.hosts.length ? "chosen" : "not chosen"),
    pins: () => (view.open ? `${view.open} open` : of((r) => r.startsWith("pin.")) || "planned"),
    power: () => of((r) => !r.startsWith("pin.")) || "sound",
    wiring: () => share("wires"),
    firmware: () => {
      const n = view.targets.filter((t) => !t.unfit).length;
      return n ? count(n, "target") : view.hosts.length ? "no program" : "";
    },
    bench: () => (progress?.checks.wrong ? `${progress.checks.wrong} off` : share("checks")),
    handout: () => "",
  };
  return words[id]();
}

type Share = { done: number; of: number };
type Progress = { wires: Share; checks: Share & { wrong: number } };
/** Edits come in quick succession: only what stands is counted. */
const COUNT_AFTER_MS = 150;

/** How far the run sheet and the bench are; the last count stays while the next is on its way. */
function useProgress(): Progress | null {
  const { project } = useProject();
  const [progress, setProgress] = useState<Progress | null>(null);
  useEffect(() => {
    if (!project) return;
    let gone = false;
    const wait = setTimeout(
      () =>
        void core()
          .progress(project)
          .then((p) => !gone && setProgress(p)),
      COUNT_AFTER_MS,
    );
    return () => {
      gone = true;
      clearTimeout(wait);
    };
  }, [project]);
  return progress;
}

function Rail() {
  const s = useProject();
  const progress = useProgress();
  const path = usePathname();
  const search = useSearchParams().toString();
  useEffect(() => {
    lastPlaces.leave(s.id, path.split("/").pop() ?? "", search ? `${path}?${search}` : path);
  }, [s.id, path, search]);
  // On a phone the stations stand in a row that scrolls: the one that is open comes into view.
  const rail = useRef<HTMLElement>(null);
  useEffect(
    () =>
      afterPaint(() => {
        const here = rail.current?.querySelector<HTMLElement>("[aria-current]");
        if (here && rail.current) rail.current.scrollLeft = here.offsetLeft - rail.current.offsetLeft - 40;
      }),
    [path],
  );
  return (
    <nav
      ref={rail}
      aria-label="Stations"
      className="flex w-44 shrink-0 flex-col border-r border-ink bg-paper py-2 max-md:w-full max-md:flex-row max-md:overflow-x-auto max-md:border-b max-md:border-r-0 max-md:py-0"
    >
      {STATIONS.map((st, i) => {
        const here = path.endsWith(`/${st.id}`);
        // Back where it was left; from the station itself, to its first view.
        const href = (!here && lastPlaces.of(s.id, st.id)) || `/p/${s.id}/${st.id}`;
        return (
          <Link
            key={st.id}
            href={href}
            prefetch={false}
            onPointerEnter={() => fetchAhead(st.id)}
            onFocus={() => fetchAhead(st.id)}
            onClick={(e) => {
              // The page knows the way: nothing is asked of the server.
              if (e.button || e.metaKey || e.ctrlKey || e.shiftKey || e.altKey) return;
              e.preventDefault();
              goTo(href);
            }}
            aria-current={here ? "page" : undefined}
            className={`flex gap-2 border-l-4 px-3 py-1.5 max-md:shrink-0 ${here ? "border-accent bg-sheet" : "border-transparent hover:bg-wash"}`}
          >
            <span className="num w-3 pt-px text-soft">{i + 1}</span>
            <span>
              <span className={here ? "font-bold" : ""}>{st.name}</span>
              {s.ready && (
                <span className="block text-sm leading-tight text-soft">{stationState(s, st.id, progress)}</span>
              )}
            </span>
          </Link>
        );
      })}
    </nav>
  );
}

const VERDICT_TONE: Record<string, string> = {
  stop: "bg-stop text-paper",
  fault: "bg-fault text-paper",
  open: "border border-ink",
  empty: "border border-line text-soft",
  risk: "border-2 border-risk text-risk",
  ready: "bg-good text-paper",
  wrong: "bg-fault text-paper",
  works: "bg-good text-paper",
};

/** Undo or redo, with what it would bring back. */
function Travel({ name, to, go, icon: Icon }: { name: string; to: string | null; go(): void; icon: LucideIcon }) {
  return (
    <Tip says={to ? `${name}: ${to}` : `Nothing to ${name.toLowerCase()}`}>
      <span>
        <button className="btn !px-2 disabled:pointer-events-none" disabled={!to} onClick={go} aria-label={name}>
          <Icon size={16} aria-hidden />
        </button>
      </span>
    </Tip>
  );
}

function TopBar({
  ledger,
  setLedger,
  openPalette,
  openVersions,
  openKeys,
}: {
  ledger: boolean;
  setLedger(v: boolean): void;
  openPalette(): void;
  openVersions(): void;
  openKeys(): void;
}) {
  const s = useProject();
  return (
    <header className="flex min-h-12 shrink-0 items-center gap-3 border-b border-ink bg-sheet px-3 max-md:flex-wrap max-md:gap-2 max-md:py-1.5">
      <Link href="/" className="quiet text-sm text-soft" aria-label="All projects">
        all projects
      </Link>
      <span className="min-w-0 truncate text-lg font-bold">{s.ready ? s.project.title : "…"}</span>
      <span
        className={`text-sm ${s.save === "failed" || s.save === "stale" ? "font-bold text-stop" : "text-soft"}`}
        data-testid="save-state"
        aria-live="polite"
      >
        {SAVE_WORDS[s.save]}
      </span>
      {s.ready && (
        <button className="quiet text-sm text-soft" onClick={openVersions}>
          versions
        </button>
      )}
      <span className="grow" />
      {s.ready && (
        <strong
          data-testid="verdict"
          role="status"
          className={`rounded-sm px-3 py-1 whitespace-nowrap ${VERDICT_TONE[s.view.verdict.level]}`}
        >
          {s.view.verdict.words}
        </strong>
      )}
      {s.ready && (
        <span className="num text-sm text-soft max-md:hidden" data-testid="fingerprint">
          plan {s.view.fingerprint}
        </span>
      )}
      <span className="grow" />
      <Travel name="Undo" to={s.canUndo} go={s.undo} icon={Undo2} />
      <Travel name="Redo" to={s.canRedo} go={s.redo} icon={Redo2} />
      <button className="btn max-lg:hidden" onClick={openPalette}>
        Find or do <kbd className="font-mono text-sm text-soft">Ctrl K</kbd>
      </button>
      <Menu
        label="More"
        className="btn !px-2 lg:hidden"
        items={[
          { name: "Find or do", go: openPalette },
          { name: "Versions", go: openVersions },
          { name: "Keys", go: openKeys },
        ]}
      >
        <Ellipsis size={16} aria-hidden />
      </Menu>
      <ThemeButton />
      <button
        className="btn !px-2"
        onClick={() => setLedger(!ledger)}
        aria-expanded={ledger}
        aria-controls="ledger"
        aria-label={ledger ? "Hide the ledger" : "Show the ledger"}
      >
        {ledger ? <PanelRightClose size={16} aria-hidden /> : <PanelRightOpen size={16} aria-hidden />}
      </button>
    </header>
  );
}

const typing = (t: EventTarget | null) =>
  t instanceof HTMLElement && (t.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(t.tagName));

function Inside({ children }: { children: ReactNode }) {
  const s = useProject();
  const station = usePathname().split("/").pop() ?? "";
  const [chosen, setChosen] = useState<Record<string, boolean>>({});
  const [width, setWidth] = useState(1280);
  // The run sheet and its drawing need the room; elsewhere the ledger stands open.
  const ledger = chosen[station] ?? (width >= 1600 || (width >= 900 && station !== "wiring"));
  const setLedger = (v: boolean) => setChosen((c) => ({ ...c, [station]: v }));
  const [palette, setPalette] = useState(false);
  const [versions, setVersions] = useState(false);
  const [keys, setKeys] = useState(false);
  useEffect(() => {
    const measure = () => setWidth(window.innerWidth);
    measure();
    window.addEventListener("resize", measure);
    return () => {
      window.removeEventListener("resize", measure);
    };
  }, []);
  const { undo, redo, ready } = s;
  useEffect(() => {
    if (!ready) return;
    // Fetched ahead, so that the first keys after Ctrl K are not lost; after what the station itself needs.
    const ahead = setTimeout(() => void loadPalette(), 1500);
    return () => clearTimeout(ahead);
  }, [ready]);
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      const mod = e.ctrlKey || e.metaKey;
      if (mod && e.key.toLowerCase() === "k") {
        e.preventDefault();
        setPalette(true);
      } else if (mod && e.key.toLowerCase() === "z" && !typing(e.target)) {
        e.preventDefault();
        if (e.shiftKey) redo();
        else undo();
      } else if (mod && e.key.toLowerCase() === "y" && !typing(e.target)) {
        e.preventDefault();
        redo();
      } else if (e.key === "?" && !typing(e.target)) setKeys(true);
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [undo, redo]);
  if (s.missing)
    return (
      <main className="p-10">
        <h1 className="text-2xl">This project can’t be opened</h1>
        <p className="mt-2">{s.missing}</p>
        <Link className="quiet" href="/">
          All projects
        </Link>
      </main>
    );
  return (
    <div className="flex h-dvh flex-col">
      <TopBar
        ledger={ledger}
        setLedger={setLedger}
        openPalette={() => setPalette(true)}
        openVersions={() => setVersions(true)}
        openKeys={() => setKeys(true)}
      />
      {s.asked && <StaleNotice />}
      <PlaceMenu>
        <div className="flex min-h-0 grow max-md:flex-col">
          <Rail />
          <main className="min-w-0 grow overflow-auto bg-sheet px-5 py-4" tabIndex={-1} data-scrolls>
            {children}
          </main>
          {ledger && s.ready && <Ledger />}
        </div>
      </PlaceMenu>
      {palette && s.ready && <Palette close={() => setPalette(false)} />}
      {versions && <Versions close={() => setVersions(false)} />}
      {keys && <Keys station={station} close={() => setKeys(false)} />}
      {s.ready && <PlaceCard />}
    </div>
  );
}

/** The frame around every station of a project: rail, top bar, ledger. */
export function ProjectFrame({ id, children }: { id: string; children: ReactNode }) {
  return (
    <ProjectProvider id={id}>
      <Inside>{children}</Inside>
    </ProjectProvider>
  );
}
