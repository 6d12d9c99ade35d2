"use client";
import { useCallback, useState } from "react";
import type { Edit } from "@/core/project";
import { Tabs } from "@/ui/shared/tabs";
import { ThemeButton } from "@/ui/shared/theme";
import { LocalProject } from "@/ui/state/local-project";
import { useProject } from "@/ui/state/project";
import { Build } from "./build";
import { Fault } from "./fault";
import { Measure } from "./measure";
import { useBench, type BenchLink } from "./use-bench";

type TabId = "build" | "measure" | "fault";

function Head({ link }: { link: BenchLink }) {
  const { project } = useProject();
  return (
    <header className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-ink pb-2">
      <p className="text-2xl font-bold">Bench {link.n}</p>
      <h1 className="min-w-0 grow text-lg">{project.title}</h1>
      <p role="status" className={`text-sm ${link.linked ? "text-soft" : "text-risk"}`}>
        {link.linked
          ? link.waiting
            ? "telling…"
            : "your teacher sees this"
          : `no network: go on, ${link.waiting || "nothing"} ${link.waiting === 1 ? "thing waits" : "waits"} to be told`}
      </p>
      <button
        className={link.hand ? "btn-main" : "btn"}
        aria-pressed={link.hand}
        onClick={() => link.tell({ kind: "hand", up: !link.hand, why: "a question" })}
      >
        {link.hand ? "Hand is up: take it down" : "Raise a hand"}
      </button>
      <ThemeButton />
    </header>
  );
}

function Body({ link }: { link: BenchLink }) {
  const [tab, setTab] = useState<TabId>("build");
  const { control } = link;
  return (
    <main className="mx-auto max-w-4xl px-4 py-4">
      <Head link={link} />
      {control.hint && (
        <p role="status" className="mt-3 border-l-4 border-accent pl-3 text-lg" data-testid="hint">
          From your teacher: <strong>{control.hint.text}</strong>
        </p>
      )}
      {control.frozen ? (
        <p role="alert" className="mt-16 text-center text-4xl font-bold" data-testid="frozen">
          Hands off, look to the front.
        </p>
      ) : (
        <Tabs<TabId>
          label="At the bench"
          tabs={[
            { id: "build", name: "Build" },
            { id: "measure", name: "Measure" },
            ...(control.fault ? [{ id: "fault" as const, name: "Find the fault" }] : []),
          ]}
          tab={tab === "fault" && !control.fault ? "build" : tab}
          go={setTab}
        >
          <div className="mt-4">
            {tab === "build" || (tab === "fault" && !control.fault) ? (
              <Build link={link} />
            ) : tab === "measure" ? (
              <Measure link={link} />
            ) : (
              <Fault link={link} />
            )}
          </div>
        </Tabs>
      )}
    </main>
  );
}

/** What every tick and reading of the bench becomes on its way to the teacher. */
function heardBy(link: Pick<BenchLink, "tell">) {
  const one = (e: Edit): void => {
    if (e.type === "batch") e.edits.forEach(one);
    else if (e.type === "tick")
      link.tell({
        kind: "tick",
        list: e.list,
        of: e.id,
        done: e.done,
        ...(e.reading !== undefined && { reading: e.reading }),
      });
  };
  return one;
}

/** A bench of a room, by its code: no account, no names. */
export function BenchPage({ code }: { code: string }) {
  const link = useBench(code);
  const tell = link && "tell" in link ? link.tell : null;
  const heard = useCallback((e: Edit) => (tell ? heardBy({ tell })(e) : undefined), [tell]);
  if (!link) return <p className="p-6 text-soft">Looking for the bench…</p>;
  if ("missing" in link)
    return (
      <main className="mx-auto max-w-xl px-4 py-10">
        <h1 className="text-2xl">No bench here</h1>
        <p>{link.missing}</p>
        <a className="underline" href="/bench">
          Type the code again
        </a>
      </main>
    );
  if (link.over !== null)
    return (
      <main className="mx-auto max-w-xl px-4 py-10">
        <h1 className="text-2xl">The lesson is over</h1>
        <p>{link.over}</p>
      </main>
    );
  return (
    <LocalProject id={`bench ${link.n}`} first={link.first} heard={heard}>
      <Body link={link} />
    </LocalProject>
  );
}
