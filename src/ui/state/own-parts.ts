"use client";
import { useCallback, useEffect, useMemo, useState } from "react";
import { toast } from "sonner";
import type { Part } from "@/core/parts/catalogue";
import { http } from "./http";
import { useProject } from "./project";

/**
 * The person's own parts: those that travel with this project, then those kept on this machine from others. Saving one
 * puts it into both.
 */
export function useOwnParts() {
  const { project, edit } = useProject();
  const [kept, setKept] = useState<Part[]>([]);
  const load = useCallback(async () => {
    const r = await http<Part[]>("GET", "/api/own-parts");
    if (r.status === 200) setKept(r.body);
  }, []);
  useEffect(() => void load(), [load]);
  const own = useMemo(() => {
    const here = new Set(project.customParts.map((p) => p.id));
    return [...project.customParts, ...kept.filter((p) => !here.has(p.id))];
  }, [project.customParts, kept]);
  const save = async (part: Part) => {
    await edit({ type: "setOwnPart", part });
    const r = await http("PUT", "/api/own-parts", part);
    if (r.status !== 200) toast.error(`Kept in this project, but not for others: ${r.body.message ?? "not saved"}`);
    await load();
  };
  const remove = async (id: string) => {
    if (project.parts.some((p) => p.part === id))
      return void toast.error("This part is in the list. Take it out there first.");
    await edit({ type: "removeOwnPart", id });
    await http("DELETE", `/api/own-parts?id=${encodeURIComponent(id)}`);
    await load();
  };
  return { own, save, remove };
}
