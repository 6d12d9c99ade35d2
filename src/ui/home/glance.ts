"use client";
import { useEffect, useState } from "react";
import type { Glance } from "@/core/glance";
import { http } from "@/ui/state/http";

/** What stands of these projects, asked one after the other so that nothing else waits; by id. */
export function useGlances(rows: readonly { id: string; version: number }[]): ReadonlyMap<string, Glance> {
  const [known, setKnown] = useState<ReadonlyMap<string, Glance>>(new Map());
  const asked = rows.map((r) => `${r.id} ${r.version}`).join("|");
  useEffect(() => {
    let gone = false;
    void (async () => {
      for (const line of asked ? asked.split("|") : []) {
        const [id = "", version] = line.split(" ");
        if (gone) return;
        const r = await http<Glance & { version: number }>("GET", `/api/projects/${id}/glance`);
        if (gone) return;
        if (r.status === 200 && r.body.version >= Number(version)) setKnown((k) => new Map(k).set(id, r.body));
      }
    })();
    return () => {
      gone = true;
    };
  }, [asked]);
  return known;
}
