"use client";
import { Command, defaultFilter } from "cmdk";
import { useRouter } from "next/navigation";
import { useEffect, useMemo, useState } from "react";
import type { Fix } from "@/core/checks/types";
import type { Term } from "@/core/glossary";
import { Sheet } from "@/ui/shared/dialog";
import { useAddPart } from "@/ui/state/add-part";
import { core } from "@/ui/state/core";
import { goTo } from "@/ui/state/go";
import { useProject, useSlices } from "@/ui/state/project";
import type { Slice } from "@/workers/view";
import { actions, GROUPS, type Action } from "./actions";
import { lastActions, wasDone } from "./last";

const item = "flex min-w-0 cursor-pointer gap-3 px-2 py-1.5 data-[selected=true]:bg-wash";
const SLICES: readonly Slice[] = ["parts", "lattices", "nets"];
/** So many of a group are shown while nothing narrows them, and at most so many in all: a list that nobody reads is no help. */
const MOST_EACH = 6;
const MOST_FOUND = 60;
const MOST_CATALOGUE = 8;

/** Parts of the catalogue that a query finds, to be added. */
function useCatalogue(query: string): Action[] {
  const { project } = useProject();
  const own = project.customParts;
  const add = useAddPart();
  const [found, setFound] = useState<Action[]>([]);
  useEffect(() => {
    if (query.length < 2) return setFound([]);
    let gone = false;
    const wait = setTimeout(
      () =>
        void core()
          .search(query, {}, own)
          .then((r) => {
            if (gone) return;
            setFound(
              r.parts.slice(0, MOST_CATALOGUE).map((p) => ({
                id: `add ${p.id}`,
                group: "Catalogue",
                words: query,
                label: (
                  <>
                    <span className="shrink-0">Add {p.name}</span>
                    <span className="min-w-0 truncate text-soft">{p.does}</span>
                  </>
                ),
                run: () => add(p.id, { own: own.find((x) => x.id === p.id) }),
              })),
            );
          }),
      120,
    );
    return () => {
      gone = true;
      clearTimeout(wait);
    };
  }, [query, own, add]);
  return found;
}

/** How well a query names something: the best of its names; one that begins as was typed is meant. */
function fit({ words, group }: Action, query: string): number {
  const low = query.toLowerCase();
  return Math.max(
    ...words
      .split("|")
      .map((w) => defaultFilter(w, query, []) + (w.toLowerCase().startsWith(low) ? (group === "Stations" ? 2 : 1) : 0)),
  );
}

/** The best first where something was typed, each group in its order otherwise. */
function pickOut(all: readonly Action[], query: string, more: readonly Action[]): Action[] {
  if (!query) {
    const last = lastActions().flatMap((id) => all.find((a) => a.id === id) ?? []);
    const shown = new Map<string, number>();
    return [
      ...last.map((a): Action => ({ ...a, group: "Last" })),
      ...all.filter((a) => {
        const n = (shown.get(a.group) ?? 0) + 1;
        shown.set(a.group, n);
        return n <= (a.group === "Stations" || a.group === "Do" ? 12 : MOST_EACH);
      }),
    ];
  }
  const found = all
    .map((a) => ({ a, score: fit(a, query) }))
    .filter((x) => x.score > 0.01)
    .sort((x, y) => y.score - x.score)
    .slice(0, MOST_FOUND)
    .map((x) => x.a);
  return [...found, ...more];
}

/** Everything that can be reached or done, by typing a few letters of it; what was done last comes first. */
export function Palette({ close }: { close(): void }) {
  const s = useProject();
  const router = useRouter();
  const here = useSlices(SLICES);
  const [typed, setTyped] = useState("");
  const query = typed.trim();
  const [word, setWord] = useState<Term | null>(null);
  const [fixes, setFixes] = useState<Record<string, Fix[]>>({});
  const { project } = s;
  useEffect(() => {
    let gone = false;
    void core()
      .fixes(project)
      .then((f) => !gone && setFixes(f));
    return () => {
      gone = true;
    };
  }, [project]);
  const all = useMemo(
    () =>
      actions(
        {
          s,
          go: (station, light = []) => {
            goTo(`/p/${s.id}/${station}`);
            s.light(light);
          },
          push: (path) => (path.startsWith(`/p/${s.id}/`) ? goTo(path) : router.push(path)),
          show: setWord,
        },
        here ? s.view : {},
        fixes,
      ),
    [s, router, here, fixes],
  );
  const catalogue = useCatalogue(query);
  const found = useMemo(() => pickOut(all, query, catalogue), [all, query, catalogue]);
  const groups = query
    ? [...new Set(found.map((a) => a.group))]
    : GROUPS.filter((g) => found.some((a) => a.group === g));
  const take = (a: Action) => {
    wasDone(a.id);
    const done = a.run();
    if (a.stays) return;
    if (done instanceof Promise) void done.then(close);
    else close();
  };
  return (
    <Sheet title="Find or do" close={close}>
      <Command label="Find or do" className="mt-2" shouldFilter={false}>
        <Command.Input
          autoFocus
          value={typed}
          onValueChange={setTyped}
          placeholder="station, part, pin, net, fix, print, setting, word…"
          className="w-full"
        />
        {word && (
          <p className="mt-2 border-l-4 border-accent pl-3" role="status" data-testid="word">
            <strong>{word.term}:</strong> {word.gloss}
          </p>
        )}
        <Command.List className="mt-2 max-h-[50vh] overflow-auto" tabIndex={0}>
          <Command.Empty className="p-2 text-soft">Nothing by that name.</Command.Empty>
          {groups.map((g) => (
            <Command.Group key={g} heading={g}>
              {found
                .filter((a) => a.group === g)
                .map((a) => (
                  <Command.Item key={a.id} value={`${g} ${a.id}`} className={item} onSelect={() => take(a)}>
                    {a.label}
                  </Command.Item>
                ))}
            </Command.Group>
          ))}
        </Command.List>
      </Command>
    </Sheet>
  );
}
