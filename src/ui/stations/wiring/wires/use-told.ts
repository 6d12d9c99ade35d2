"use client";
import { useEffect, useState } from "react";
import type { WireAsk } from "@/core/wires";
import type { Told } from "@/workers/api";
import { core } from "@/ui/state/core";
import { useProject } from "@/ui/state/project";

const AFTER_MS = 120;

/** What an ask would bring in the project as it is: told anew with every change of either. */
export function useTold(ask: WireAsk | null): Told | null {
  const { project } = useProject();
  const key = ask ? JSON.stringify(ask) : "";
  const [told, setTold] = useState<{ key: string; told: Told } | null>(null);
  useEffect(() => {
    if (!key) return;
    let gone = false;
    const timer = setTimeout(
      () =>
        void core()
          .tellWire(project, JSON.parse(key) as WireAsk)
          .then((t) => !gone && setTold({ key, told: t })),
      AFTER_MS,
    );
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [project, key]);
  return told && told.key === key ? told.told : null;
}
