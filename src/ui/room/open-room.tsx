"use client";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import { toast } from "sonner";
import { when } from "@/ui/shared/when";
import { http } from "@/ui/state/http";
import { useProject } from "@/ui/state/project";

/** Opens a room for the lesson on this plan, and lists those that are open. */
export function OpenRoom() {
  const { id, project, saveNow, view } = useProject();
  const router = useRouter();
  const [rooms, setRooms] = useState<{ id: string; created_at: string }[]>([]);
  useEffect(() => {
    void http<{ rooms: typeof rooms }>("GET", `/api/rooms?project=${id}`).then((r) => {
      if (r.status === 200) setRooms(r.body.rooms);
    });
  }, [id]);
  const benches = project.kit?.benches ?? 1;
  const open = async () => {
    await saveNow();
    const r = await http<{ id: string }>("POST", "/api/rooms", { project: id, benches });
    if (r.status === 201) router.push(`/rooms/${r.body.id}`);
    else toast.error(r.body.message ?? "Not opened.");
  };
  const stops = view.verdict.counts.stop > 0;
  return (
    <section aria-label="The room" className="mt-4 border-t border-line pt-2">
      <h3 className="font-bold">The room</h3>
      <p className="text-sm text-soft">
        Each bench opens its own page by a short code: one step at a time, its checks, its console, a fault to find. You
        see all of them.
      </p>
      <div className="mt-1 flex flex-wrap items-center gap-4">
        <button className="btn" disabled={stops || !project.links.length} onClick={() => void open()}>
          Open a room for {benches} {benches === 1 ? "bench" : "benches"}
        </button>
        {stops && <span className="text-stop">Not with a stop in the plan.</span>}
        {rooms.map((r) => (
          <Link key={r.id} className="quiet" href={`/rooms/${r.id}`}>
            room of {when(r.created_at)}
          </Link>
        ))}
      </div>
    </section>
  );
}
