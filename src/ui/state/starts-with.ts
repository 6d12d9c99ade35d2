import type { StartsWith } from "@/workers/api";
import { http } from "./http";

/** What every project begins with on this machine: the person's drawer, and what the class has settled. */
export async function startsWith(): Promise<StartsWith> {
  const [rules, drawer] = await Promise.all([
    http<{ settled: StartsWith["settled"] }>("GET", "/api/class-rules"),
    http<NonNullable<StartsWith["drawer"]>>("GET", "/api/drawer"),
  ]);
  return {
    settled: rules.status === 200 ? rules.body.settled : null,
    drawer: drawer.status === 200 ? drawer.body : null,
  };
}
