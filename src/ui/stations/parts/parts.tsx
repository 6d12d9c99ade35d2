"use client";
import { useDrawn } from "@/ui/shared/after-paint";
import { useKept } from "@/ui/state/kept";
import { usePathname, useSearchParams } from "next/navigation";
import { useState } from "react";
import { toast } from "sonner";
import type { Part } from "@/core/parts/catalogue";
import { MOST_COMPARED } from "@/core/parts/catalogue/roles";
import { later } from "@/ui/shared/later";
import { Tabs } from "@/ui/shared/tabs";
import { StationTitle } from "@/ui/shared/title";
import { useAddPart, type AddAsked } from "@/ui/state/add-part";
import { useOwnParts } from "@/ui/state/own-parts";
import { useDrawer } from "./use-drawer";
import { Find, type Hit } from "./find";
import { ProjectList } from "./project/list";

const Compare = later(() => import("./compare").then((m) => m.Compare));
const Marked = later(() => import("./marked").then((m) => m.Marked));
const Drawer = later(() => import("./drawer").then((m) => m.Drawer));
const ImportList = later(() => import("./import-list").then((m) => m.ImportList));
const OwnEditor = later(() => import("./own/editor").then((m) => m.OwnEditor));
const OwnList = later(() => import("./own/list").then((m) => m.OwnList));

const TABS = [
  { id: "find", name: "Find" },
  { id: "list", name: "Paste a list" },
  { id: "drawer", name: "My drawer" },
  { id: "own", name: "Own parts" },
] as const;
type Tab = (typeof TABS)[number]["id"];
const isTab = (t: string | null): t is Tab => TABS.some((x) => x.id === t);

/** Parts: find what is in the drawer, add it, and see what else it needs and why. */
export function Parts() {
  const { own, save, remove } = useOwnParts();
  const { drawer, put } = useDrawer();
  const path = usePathname();
  const params = useSearchParams();
  const asked = params.get("show");
  const tab: Tab = isTab(asked) ? asked : "find";
  const editing = params.get("part");
  const [marked, setMarked] = useState<Hit | null>(null);
  const [compared, setCompared] = useKept<string[]>("compared", []);
  const [comparing, setComparing] = useState(false);
  const [added, setAdded] = useState<readonly string[]>([]);
  // The address changes at once, without asking the server: nothing is typed into the old view.
  const go = (t: Tab, part?: string) =>
    window.history.replaceState(
      null,
      "",
      `${path}${t === "find" ? "" : `?show=${t}${part ? `&part=${encodeURIComponent(part)}` : ""}`}`,
    );

  const addPart = useAddPart(setAdded);
  const add = (id: string, more: AddAsked = {}) => void addPart(id, { ...more, own: own.find((x) => x.id === id) });
  const compare = (id: string, on: boolean) =>
    setCompared((list) =>
      on ? (list.length < MOST_COMPARED && !list.includes(id) ? [...list, id] : list) : list.filter((x) => x !== id),
    );
  // The project's own parts first, the finder a frame later.
  const drawn = useDrawn();
  const saved = async (part: Part) => {
    await save(part);
    toast(`${part.name} saved. It is found like any other part.`);
    go("own");
  };
  return (
    <>
      <StationTitle
        name="Parts"
        says="What is in the build, and what to add. What a part needs around it comes along, with the reason."
      />
      <Tabs label="Parts views" tabs={TABS} tab={tab} go={go}>
        {tab === "find" && (
          <div className="mt-3 grid gap-x-8 gap-y-4 md:grid-cols-[minmax(0,1fr)_minmax(260px,340px)]">
            <ProjectList added={added} />
            <div className="min-w-0 self-start md:sticky md:top-0">
              {drawn && (
                <Find
                  own={own}
                  owned={drawer.parts}
                  marked={marked}
                  mark={setMarked}
                  add={(h) => {
                    setMarked(h);
                    add(h.id);
                  }}
                >
                  {marked && (
                    <Marked
                      hit={marked}
                      own={own}
                      owned={drawer.parts[marked.id] ?? 0}
                      compared={compared.includes(marked.id)}
                      add={(more) => add(marked.id, more)}
                      compare={(on) => compare(marked.id, on)}
                      keep={(n) => void put({ parts: { [marked.id]: n } })}
                      copy={() => go("own", `copy:${marked.id}`)}
                      change={marked.own ? () => go("own", marked.id) : null}
                      close={() => setMarked(null)}
                    />
                  )}
                  {compared.length > 0 && (
                    <p className="mt-2 flex flex-wrap items-center gap-2 text-sm">
                      {compared.length} of {MOST_COMPARED} to compare
                      <button className="btn" disabled={compared.length < 2} onClick={() => setComparing(true)}>
                        Side by side
                      </button>
                      <button className="quiet text-soft" onClick={() => setCompared([])}>
                        none
                      </button>
                    </p>
                  )}
                </Find>
              )}
            </div>
          </div>
        )}
        {tab === "list" && <ImportList own={own} done={() => go("find")} />}
        {tab === "drawer" && <Drawer />}
        {tab === "own" &&
          (editing ? (
            <OwnEditor key={editing} which={editing} own={own} save={saved} close={() => go("own")} />
          ) : (
            <OwnList own={own} save={save} remove={remove} edit={(which) => go("own", which)} add={(id) => add(id)} />
          ))}
      </Tabs>
      {comparing && compared.length > 1 && (
        <Compare
          ids={compared}
          own={own}
          add={(id) => add(id)}
          drop={(id) => {
            compare(id, false);
            if (compared.length <= 2) setComparing(false);
          }}
          close={() => setComparing(false)}
        />
      )}
    </>
  );
}
