import { toast } from "sonner";
import { count } from "@/core/quantity/count";
import { http } from "@/ui/state/http";
import { saveBlob } from "./save-file";

/** A file that comes within this is not worth a word, ms. */
const SOON_MS = 600;
const LOOK_MS = 1000;

const nameOf = (r: Response) => /filename="([^"]+)"/.exec(r.headers.get("content-disposition") ?? "")?.[1] ?? "file";

/**
 * Fetches a file that the server makes, and hands it to the browser. What takes a while is told, with how many are made before it,
 * and can be stopped: the server then gives it up.
 */
export async function fetchFile(href: string, what: string): Promise<void> {
  const stop = new AbortController();
  const id = `file ${href}`;
  let over = false;
  const tell = (says: string) =>
    toast.loading(says, { id, duration: Infinity, action: { label: "Stop", onClick: () => stop.abort() } });
  const look = async () => {
    if (over) return;
    const r = await http<{ running: number; waiting: number }>("GET", "/api/work");
    if (over) return;
    const before = r.status === 200 ? r.body.waiting : 0;
    tell(before ? `${what} is being made; ${count(before, "other")} in the row.` : `${what} is being made.`);
    setTimeout(() => void look(), LOOK_MS);
  };
  const soon = setTimeout(() => void look(), SOON_MS);
  try {
    const r = await fetch(href, { signal: stop.signal });
    if (r.ok) saveBlob(nameOf(r), await r.blob());
    else
      toast.error(((await r.json()) as { message?: string }).message ?? `${what} could not be made.`, {
        duration: 12_000,
      });
  } catch {
    if (stop.signal.aborted) toast(`${what}: stopped.`);
    else toast.error("The app's server does not answer. Start it again; what you see here is kept.");
  } finally {
    over = true;
    clearTimeout(soon);
    toast.dismiss(id);
  }
}
