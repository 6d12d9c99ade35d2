"use client";
import { useEffect, useRef, useState } from "react";
import type { Glance } from "@/core/glance";
import { http } from "@/ui/state/http";

type Stored = Glance & { version: number };

/** What stands of these projects, asked one after the other so that nothing else waits; by id. */
export function useGlances(rows: readonly { id: string; version: number }[]): ReadonlyMap<string, Stored> {
  const [known, setKnown] = useState<ReadonlyMap<string, Stored>>(new Map());
  // What is known of a version is not asked again: a filter that is typed costs nothing.
  const has = useRef(known);
  has.current = known;
  const asked = rows.map((r) => `${r.id} ${r.version}`).join("|");
  useEffect(() => {
    let gone = false;
    void (async () => {
      for (const line of asked ? asked.split("|") : []) {
        const [id = "", version] = line.split(" ");
        if (gone) return;
        if ((has.current.get(id)?.version ?? 0) >= Number(version)) continue;
        const r = await http<Stored>("GET", `/api/projects/${id}/glance`);
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
