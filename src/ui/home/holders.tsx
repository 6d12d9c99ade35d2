"use client";
import { useCallback, useEffect, useState } from "react";
import { toast } from "sonner";
import { when } from "@/ui/shared/when";
import { http } from "@/ui/state/http";

interface Row {
  id: string;
  who: string;
  since: string;
  seen: string;
  mine: boolean;
}

/** With the class on the network: who opened the bench's link and may change things. Each can be closed out. */
export function Holders() {
  const [rows, setRows] = useState<Row[]>([]);
  const look = useCallback(async () => {
    const r = await http<Row[]>("GET", "/api/holders");
    if (r.status === 200) setRows(r.body);
  }, []);
  useEffect(() => void look(), [look]);
  if (!rows.length) return null;
  const close = async (row: Row) => {
    const r = await http("POST", "/api/holders", { id: row.id });
    if (r.status !== 200) toast.error(r.body.message ?? "That did not work.");
    // Who closes out itself is told no more.
    else setRows((all) => all.filter((x) => x.id !== row.id));
    await look();
  };
  return (
    <section aria-label="Who may change things" className="mt-8 border-t border-line pt-3">
      <h2 className="text-xl">Who may change things</h2>
      <p className="text-soft">Browsers that opened the bench’s own link since the app was started. The others read.</p>
      <ul className="mt-2">
        {rows.map((r) => (
          <li key={r.id} className="flex flex-wrap items-center gap-3 border-b border-line py-1" data-testid="holder">
            <span className="grow">
              {r.who} {r.mine && <strong>this one</strong>}{" "}
              <span className="text-sm text-soft">
                since {when(r.since)}, last {when(r.seen)}
              </span>
            </span>
            <button className="quiet text-sm" onClick={() => void close(r)} aria-label={`close out ${r.who}`}>
              close out
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
