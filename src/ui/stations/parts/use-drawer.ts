import { toast } from "sonner";
import type { ChosenPrint } from "@/core/parts/catalogue";
import type { Drawer as DrawerData, Project } from "@/core/project";
import { http } from "@/ui/state/http";
import { core } from "@/ui/state/core";
import { useActions, useProject } from "@/ui/state/project";

const keep = async (project: Project) => {
  const r = await http("PUT", "/api/drawer", project.drawer);
  if (r.status !== 200) toast.error(`Kept in this project, but not for the next: ${r.body.message ?? "not saved"}`);
};

/** A header that somebody has looked at: told to the part, and to the drawer for the next one of its kind. */
export function useConfirmPrint() {
  const { run } = useActions();
  return async (ref: string, id: string, print: ChosenPrint) => {
    const step = await run((p) => core().confirmPrint(p, ref, id, print));
    if (step) await keep(step.project);
  };
}

/** Saves the drawer with the project and, for the next ones, on this machine. */
export function useDrawer() {
  const { project, edit } = useProject();
  const { drawer } = project;
  const put = async (change: Partial<DrawerData>) => {
    const step = await edit({ type: "setDrawer", drawer: change });
    if (!step) return;
    await keep(step.project);
  };
  return { drawer, put };
}
