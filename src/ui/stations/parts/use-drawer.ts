import { toast } from "sonner";
import type { Drawer as DrawerData } from "@/core/project";
import { http } from "@/ui/state/http";
import { useProject } from "@/ui/state/project";

/** Saves the drawer with the project and, for the next ones, on this machine. */
export function useDrawer() {
  const { project, edit } = useProject();
  const { drawer } = project;
  const put = async (change: Partial<DrawerData>) => {
    const step = await edit({ type: "setDrawer", drawer: change });
    if (!step) return;
    const r = await http("PUT", "/api/drawer", step.project.drawer);
    if (r.status !== 200) toast.error(`Kept in this project, but not for the next: ${r.body.message ?? "not saved"}`);
  };
  return { drawer, put };
}
