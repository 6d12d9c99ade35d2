import { OwnDraftSchema, type OwnDraft } from "@/core/parts/own/schema";

/** What is in the editor survives a look at another station or a closed tab, until it is saved or given up. */
export function keptUnder(key: string) {
  const load = () => {
    try {
      // One that an older page kept may have another shape: then it is begun anew.
      return OwnDraftSchema.safeParse(JSON.parse(sessionStorage.getItem(key) ?? "null")).data ?? null;
    } catch {
      return null;
    }
  };
  return {
    load,
    keep: (d: OwnDraft) => {
      try {
        sessionStorage.setItem(key, JSON.stringify(d));
      } catch {
        // A full store only means that it is not kept.
      }
    },
    drop: () => sessionStorage.removeItem(key),
  };
}
