"use client";
import { useCallback, useEffect, useState } from "react";
import { toast } from "sonner";
import { count } from "@/core/quantity/count";
import type { BinRow } from "@/db/bin";
import type { Contents, Preview } from "@/db/backup";
import { Holders } from "./holders";
import { Sheet } from "@/ui/shared/dialog";
import { AskFirst } from "@/ui/shared/ask-first";
import { OpenFile } from "@/ui/shared/open-file";
import { when } from "@/ui/shared/when";
import { http } from "@/ui/state/http";

/** So many names are said; the others are counted. */
const NAMED = 8;

function Names({ says, titles }: { says: string; titles: readonly string[] }) {
  if (!titles.length) return null;
  return (
    <li>
      <span className="font-bold">{says}</span> {titles.slice(0, NAMED).join(", ")}
      {titles.length > NAMED && ` and ${count(titles.length - NAMED, "other")}`}
    </li>
  );
}

const holds = (c: Contents) =>
  `${count(c.projects, "project")} in ${count(c.versions, "version")}, ${count(c.parts, "own part")}${
    c.deleted ? `, ${c.deleted} in the bin` : ""
  }${c.changed ? `; last changed ${when(c.changed)}` : ""}`;

/** What restoring would do, before anything is done. */
function Restore({ name, preview: p, answer }: { name: string; preview: Preview; answer(restore: boolean): void }) {
  return (
    <Sheet title={`Restore ${name}?`} close={() => answer(false)}>
      <dl className="mt-2 grid grid-cols-[auto_1fr] gap-x-3">
        <dt className="text-soft">In the backup</dt>
        <dd>{holds(p.copy)}</dd>
        <dt className="text-soft">Here now</dt>
        <dd>{holds(p.here)}</dd>
      </dl>
      <ul className="mt-3 list-disc space-y-1 pl-5" data-testid="restore-says">
        <Names says="Come back:" titles={p.back} />
        <Names says="Would be gone, they are not in the backup:" titles={p.lost} />
        <Names says="Would be older than now:" titles={p.older} />
        <Names says="Would be newer than now:" titles={p.newer} />
        {p.same > 0 && <li>{count(p.same, "project")} the same in both.</li>}
      </ul>
      <p className="mt-3">
        What is here now is backed up first, beside the data file. Pages that are open in other tabs must be loaded
        anew.
      </p>
      <div className="mt-3 flex flex-wrap gap-3">
        <button className="btn" onClick={() => answer(false)}>
          Leave everything as it is
        </button>
        <button className="btn-main" onClick={() => answer(true)}>
          Put the backup in its place
        </button>
      </div>
    </Sheet>
  );
}

function Bin({ rows, act, close }: { rows: readonly BinRow[]; act(r: BinRow, what: string): void; close(): void }) {
  return (
    <Sheet title="Bin" close={close}>
      <p className="text-soft">Deleted projects stay for 30 days, with all their versions, under their own address.</p>
      {rows.length === 0 && <p className="mt-3">It is empty.</p>}
      <ul className="mt-2">
        {rows.map((r) => (
          <li key={r.id} className="flex flex-wrap items-center gap-3 border-b border-line py-1" data-testid="binned">
            <span className="grow">
              {r.title} <span className="text-sm text-soft">deleted {when(r.deleted_at)}</span>
            </span>
            <button className="quiet" onClick={() => act(r, "bring back")} aria-label={`bring back ${r.title}`}>
              bring back
            </button>
            <AskFirst
              title={`Delete ${r.title} for good?`}
              says="All its versions go with it. Nothing brings it back but a backup."
              yes="Delete for good"
              go={() => act(r, "delete for good")}
            >
              <button className="quiet text-soft" aria-label={`delete for good: ${r.title}`}>
                delete for good
              </button>
            </AskFirst>
          </li>
        ))}
      </ul>
    </Sheet>
  );
}

/** Backup, restore, export and the bin, for all projects at once. */
export function Keeping({ changed, load }: { changed: unknown; load(): Promise<void> }) {
  const [rows, setRows] = useState<BinRow[]>([]);
  const [open, setOpen] = useState(false);
  const [taken, setTaken] = useState<{ name: string; token: string; preview: Preview } | null>(null);
  const [busy, setBusy] = useState(false);

  const look = useCallback(async () => {
    const r = await http<BinRow[]>("GET", "/api/bin");
    if (r.status === 200) setRows(r.body);
  }, []);
  useEffect(() => void look(), [look, changed]);

  const act = async (row: BinRow, what: string) => {
    const r = await http("POST", "/api/bin", { id: row.id, do: what });
    if (r.status !== 200) toast.error(r.body.message ?? "That did not work.");
    else if (what === "bring back") toast(`"${row.title}" is back.`);
    await Promise.all([look(), load()]);
  };

  const take = async (f: File | undefined) => {
    if (!f) return;
    setBusy(true);
    try {
      const r = await fetch("/api/backup", {
        method: "POST",
        body: f,
        headers: { "content-type": "application/octet-stream" },
      });
      const body = (await r.json()) as { token: string; preview: Preview; message?: string };
      if (r.status === 200) setTaken({ name: f.name, ...body });
      else toast.error(body.message ?? "That file can't be used.", { duration: 12_000 });
    } catch {
      toast.error("The app's server does not answer. Start it again; nothing was changed.");
    } finally {
      setBusy(false);
    }
  };
  const answer = async (restore: boolean) => {
    const { token } = taken!;
    setTaken(null);
    const r = await http<{ kept: string | null }>("PUT", "/api/backup", { token, restore });
    if (r.status !== 200) return toast.error(r.body.message ?? "Nothing was restored.", { duration: 12_000 });
    if (!restore) return;
    toast(`Restored. What was here before is in ${r.body.kept}, beside the data file.`, { duration: 20_000 });
    await Promise.all([look(), load()]);
  };

  return (
    <section aria-label="Keeping" className="mt-10 border-t border-line pt-3">
      <h2 className="text-xl">Keeping</h2>
      <p className="text-soft">A backup holds everything: projects, versions, own parts, results, the bin.</p>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <a className="btn" href="/api/backup" data-testid="backup">
          Back up everything
        </a>
        <OpenFile
          says={busy ? "Reading it…" : "Restore a backup…"}
          label="Backup file"
          accept=".sqlite,application/vnd.sqlite3"
          open={take}
        />
        <a className="btn" href="/api/export" data-testid="export">
          All as open files (ZIP)
        </a>
        <button className="btn" onClick={() => setOpen(true)}>
          Bin{rows.length ? ` (${rows.length})` : ""}
        </button>
      </div>
      <Holders />
      {open && <Bin rows={rows} act={(r, what) => void act(r, what)} close={() => setOpen(false)} />}
      {taken && <Restore name={taken.name} preview={taken.preview} answer={(yes) => void answer(yes)} />}
    </section>
  );
}
