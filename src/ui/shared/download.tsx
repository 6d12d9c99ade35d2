"use client";
import type { ReactNode } from "react";
import { useProject } from "@/ui/state/project";

/** A download that the server makes from the saved project: what is not saved yet is saved first. */
export function Download({
  path,
  main,
  testId,
  children,
}: {
  path: string;
  main?: boolean;
  testId?: string;
  children: ReactNode;
}) {
  const { id, saveNow } = useProject();
  const href = `/api/projects/${id}/${path}`;
  return (
    <a
      className={`${main ? "btn-main" : "btn"} self-center`}
      href={href}
      data-testid={testId}
      onClick={(e) => {
        e.preventDefault();
        void saveNow().then(async () => (await import("./fetch-file")).fetchFile(href, "The file"));
      }}
    >
      {children}
    </a>
  );
}
