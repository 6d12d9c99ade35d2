import { readLp, writeLp, type Found, type Proof, type Prover } from "../core/plan/assign";

/** The second solver as the page reaches it: the app's own server works the model out in a thread. */
export const serverProver: Prover = (p): Proof => {
  const gone = new AbortController();
  let found: Found = null;
  void fetch("/api/prove", { method: "POST", body: writeLp(p), signal: gone.signal })
    .then((r) => (r.ok ? (r.json() as Promise<{ says: string; ones?: string[] }>) : null))
    .then((a) => {
      if (a?.says === "no plan") found = "no plan";
      const choice = a?.says === "plan" ? readLp(p, a.ones ?? []) : null;
      if (choice) found = { choice };
    })
    // Without an answer our own search goes on alone.
    .catch(() => undefined);
  return { look: () => found, drop: () => gone.abort() };
};
