"use client";
import Link from "next/link";
import { useEffect, useState } from "react";
import { AskFirst } from "@/ui/shared/ask-first";
import { toast } from "sonner";
import type { Part } from "@/core/parts/catalogue";
import { OpenFile, Problems } from "@/ui/shared/open-file";
import { saveFile } from "@/ui/shared/save-file";
import { Select } from "@/ui/shared/select";
import { core } from "@/ui/state/core";

const MAX_FILE = 200_000;

/** The person's own parts: make one, change, copy, bring in from a file, hand out as a file. */
export function OwnList({
  own,
  save,
  remove,
  edit,
  add,
}: {
  own: readonly Part[];
  save(p: Part): Promise<void>;
  remove(id: string): Promise<void>;
  edit(which: string): void;
  add(id: string): void;
}) {
  const [problems, setProblems] = useState<string[]>([]);
  const [boards, setBoards] = useState<{ id: string; name: string }[]>([]);
  useEffect(() => {
    void core()
      .search("", { kind: ["board"] }, own)
      .then((r) => setBoards(r.parts));
  }, [own]);
  const bring = async (f: File | undefined) => {
    if (!f) return;
    setProblems([]);
    if (f.size > MAX_FILE)
      return setProblems([`${f.name} is larger than ${MAX_FILE / 1000} kB; a part file is far smaller.`]);
    const r = await core().readPart(await f.text());
    if (!r.ok)
      return setProblems([
        `${f.name} was not taken:`,
        ...r.problems.slice(0, 12).map((p) => (p.path ? `${p.path}: ${p.message}` : p.message)),
      ]);
    await save(r.part);
    toast(`${r.part.name} is among your own parts now.`);
  };
  return (
    <section aria-label="Own parts" className="mt-3">
      <p className="max-w-2xl text-soft">
        A part that is missing takes five minutes: have its data sheet page open. Own parts travel with the project file
        and are found in your other projects too.
      </p>
      <div className="mt-2 flex flex-wrap gap-2">
        <button className="btn-main" onClick={() => edit("new")}>
          Make an own part
        </button>
        <Select<string>
          label="Make a board with the chip of"
          value=""
          empty="Make a board with the chip of…"
          options={boards.map((b) => ({ value: b.id, name: b.name }))}
          onChange={(id) => edit(`board:${id}`)}
        />
        <OpenFile says="Open a part file…" label="Part file" accept=".json,application/json" open={bring} />
      </div>
      <Problems lines={problems} />
      <ul className="mt-3 border-t border-ink">
        {own.map((p) => (
          <li
            key={p.id}
            className="flex flex-wrap items-baseline gap-x-4 border-b border-line py-2"
            data-testid={`own-${p.id}`}
          >
            <span className="font-bold">{p.name}</span>
            <span className="grow text-soft">
              {p.does} · {p.pins.length} pins · data certainty {p.certainty}
            </span>
            <button className="quiet text-sm" onClick={() => add(p.id)}>
              add
            </button>
            <button className="quiet text-sm" onClick={() => edit(p.id)}>
              change
            </button>
            <button className="quiet text-sm" onClick={() => edit(`copy:${p.id}`)}>
              copy
            </button>
            <Link className="quiet text-sm" href={`/parts/${p.id}`}>
              page
            </Link>
            <button
              className="quiet text-sm"
              onClick={() =>
                saveFile(`${p.id.split("/")[1]}.part.json`, `${JSON.stringify(p, null, 2)}\n`, "application/json")
              }
            >
              file
            </button>
            <AskFirst
              title={`Remove ${p.name}?`}
              says="It goes out of this project and out of the list for your other projects. Save it as a file first if you may want it again."
              yes="Remove it"
              go={() => void remove(p.id)}
            >
              <button className="quiet text-sm text-soft" aria-label={`Remove ${p.name}`}>
                remove
              </button>
            </AskFirst>
          </li>
        ))}
        {own.length === 0 && <li className="py-3 text-soft">None yet.</li>}
      </ul>
    </section>
  );
}
