"use client";
import { useEffect, useState } from "react";
import type { RemarkAt } from "@/core/project";
import type { RemarkView } from "@/core/review";
import { count } from "@/core/quantity/count";
import { Fold } from "@/ui/shared/fold";
import { Label } from "@/ui/shared/label";
import { Select } from "@/ui/shared/select";
import { core } from "@/ui/state/core";
import { newId } from "@/ui/state/edit-log";
import { useKept } from "@/ui/state/kept";
import { useProject } from "@/ui/state/project";

const nameOf = (at: RemarkAt) => JSON.stringify(at);

/** What somebody writes about a place of the plan. */
function Form({ first, close }: { first: RemarkAt; close(): void }) {
  const { project, edit } = useProject();
  const [places, setPlaces] = useState<{ says: string; at: RemarkAt }[]>([]);
  const [at, setAt] = useState(first);
  const [by, setBy] = useKept<string>("remark by", "");
  const [says, setSays] = useState("");
  useEffect(() => {
    void core().remarkPlaces(project).then(setPlaces);
  }, [project]);
  useEffect(() => setAt(first), [first]);
  const known = places.some((p) => nameOf(p.at) === nameOf(at));
  const own =
    at.kind === "part" ? `${at.ref}${at.pin ? `, pin ${at.pin}` : ""}` : at.kind === "net" ? at.name : "this place";
  const options = [...(known ? [] : [{ says: own, at }]), ...places];
  return (
    <form
      aria-label="A remark"
      className="border-b border-line bg-sheet px-3 py-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (!says.trim()) return;
        const remark = { id: newId(), at, by: by.trim(), when: new Date().toISOString(), says: says.trim() };
        void edit({ type: "addRemark", remark });
        close();
      }}
    >
      <Select<string>
        label="What the remark is about"
        value={nameOf(at)}
        options={options.map((p) => ({ value: nameOf(p.at), name: p.says }))}
        onChange={(v) => setAt(options.find((p) => nameOf(p.at) === v)!.at)}
      />
      <textarea
        autoFocus
        aria-label="Remark"
        className="mt-1 w-full"
        rows={3}
        maxLength={1000}
        placeholder="what you would do, and why"
        value={says}
        onChange={(e) => setSays(e.target.value)}
      />
      <div className="flex flex-wrap items-end gap-2">
        <Label>
          <span className="block text-sm text-soft">by</span>
          <input className="w-28" value={by} maxLength={60} onChange={(e) => setBy(e.target.value)} />
        </Label>
        <button className="btn-main" disabled={!says.trim()}>
          Put it there
        </button>
        <button type="button" className="btn" onClick={close}>
          Leave it
        </button>
      </div>
    </form>
  );
}

function One({ view }: { view: RemarkView }) {
  const { edit, light } = useProject();
  const [answer, setAnswer] = useState<string | null>(null);
  const { remark } = view;
  const done = (says: string) =>
    void edit({ type: "closeRemark", id: remark.id, done: { by: "", when: new Date().toISOString(), says } });
  return (
    <li
      className="border-b border-line px-3 py-2"
      onMouseEnter={() => light(view.places)}
      onMouseLeave={() => light([])}
    >
      <p className="text-sm text-soft">
        {view.about}
        {view.gone && <span className="text-risk"> · no longer in the plan</span>}
      </p>
      <p className={remark.done ? "text-soft line-through" : ""}>{remark.says}</p>
      <p className="text-sm text-soft">
        {remark.by || "somebody"}, {remark.when.slice(0, 10)}
        {remark.done && ` · done${remark.done.says ? `: ${remark.done.says}` : ""}`}
      </p>
      {answer !== null ? (
        <form
          className="mt-1 flex gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            done(answer.trim());
            setAnswer(null);
          }}
        >
          <input
            autoFocus
            aria-label="What was done"
            className="min-w-0 grow"
            placeholder="what was done about it"
            maxLength={1000}
            value={answer}
            onChange={(e) => setAnswer(e.target.value)}
          />
          <button className="btn">Done</button>
        </form>
      ) : (
        <p className="mt-1 flex gap-4 text-sm">
          {remark.done ? (
            <button className="quiet" onClick={() => void edit({ type: "closeRemark", id: remark.id, done: null })}>
              open again
            </button>
          ) : (
            <button className="quiet" onClick={() => setAnswer("")}>
              done
            </button>
          )}
          <button className="quiet text-soft" onClick={() => void edit({ type: "removeRemark", id: remark.id })}>
            take out
          </button>
        </p>
      )}
    </li>
  );
}

/** What others have said about the plan, place by place; and the form for saying something. */
export function Remarks({ asked, ask: setAsked }: { asked: RemarkAt | null; ask(at: RemarkAt | null): void }) {
  const { project } = useProject();
  const [list, setList] = useState<RemarkView[]>([]);
  useEffect(() => {
    if (!project.remarks?.length) return setList([]);
    let gone = false;
    void core()
      .remarks(project)
      .then((r) => {
        if (!gone) setList(r);
      });
    return () => {
      gone = true;
    };
  }, [project]);
  const open = list.filter((r) => !r.remark.done).length;
  return (
    <section aria-label="Remarks">
      {asked && <Form first={asked} close={() => setAsked(null)} />}
      {list.length > 0 && (
        <Fold
          open={open > 0}
          className="border-b border-line"
          title={`Remarks: ${open ? count(open, "open one", "open ones") : "all done"}`}
        >
          <ul>
            {list.map((r) => (
              <One key={r.remark.id} view={r} />
            ))}
          </ul>
          {!asked && (
            <p className="px-3 py-1.5 text-sm">
              <button className="quiet" onClick={() => setAsked({ kind: "plan" })}>
                another remark
              </button>
            </p>
          )}
        </Fold>
      )}
    </section>
  );
}
