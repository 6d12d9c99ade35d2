import { wrap, type Remote } from "comlink";
import type { Project } from "@/core/project";
import type { CoreApi } from "@/workers/api";
import type { Step } from "@/workers/step";
import type { Slice, View } from "@/workers/view";
import { Restarted, watched } from "./watched";
import { isProject, makeReceiver, Missed, UNKNOWN_PROJECT, type SentSlices, type SentStep } from "@/workers/talk";

type Call = (...args: unknown[]) => Promise<unknown>;
interface Talk {
  look(project: unknown, names: Slice[]): Promise<SentSlices>;
  again(): Promise<SentStep | null>;
}

type Api = Talk & { alive(): Promise<void> } & Record<string, Call>;
const receiver = makeReceiver();

function start() {
  const worker = new Worker(new URL("../../workers/core.worker.ts", import.meta.url), { type: "module" });
  const api = wrap(worker) as unknown as Api;
  return {
    api,
    alive: () => api.alive(),
    onBroken: (broke: () => void) => {
      worker.addEventListener("error", broke);
      worker.addEventListener("messageerror", broke);
    },
    stop: () => worker.terminate(),
  };
}

/** Called after the computation had to be begun anew. */
const restarted = new Set<() => void>();
export function onRestart(f: () => void): () => void {
  restarted.add(f);
  return () => void restarted.delete(f);
}

const worker = watched<Api>(start, () => restarted.forEach((f) => f()));

// A project's page will ask at once: its worker starts while the page itself still comes to life.
if (typeof window !== "undefined" && window.location.pathname.startsWith("/p/"))
  void worker.ask((w) => w.alive()).catch(() => undefined);

/** Asks, and asks again with whole projects when the worker does not know one by its number any more. */
async function send<T>(args: readonly unknown[], ask: (sent: unknown[]) => Promise<T>): Promise<T> {
  try {
    return await ask(receiver.pack(args));
  } catch (e) {
    if (!(e instanceof Error) || e.message !== UNKNOWN_PROJECT) throw e;
    return ask(receiver.pack(args, true));
  }
}

/** What a computation that broke was asked is asked once more of the one in its place. */
async function again<T>(ask: () => Promise<T>): Promise<T> {
  try {
    return await ask();
  } catch (e) {
    if (!(e instanceof Restarted)) throw e;
    return ask();
  }
}

async function call(name: string, args: unknown[]): Promise<unknown> {
  const answer = await again(() => send(args, (sent) => worker.ask((w) => w[name]!(...sent))));
  const asked = args.find(isProject);
  try {
    return receiver.unpack(answer, asked);
  } catch (e) {
    if (!(e instanceof Missed)) throw e;
    const whole = receiver.unpack(await worker.ask((w) => w.again()), asked) as Step;
    return "step" in (answer as object) && !("slices" in (answer as object))
      ? { ...(answer as object), step: whole }
      : whole;
  }
}

const asked = new Map<string, Call>();
const api = new Proxy({} as Remote<CoreApi>, {
  get: (_, name: string) => {
    const known = asked.get(name);
    if (known) return known;
    const made: Call = (...args) => call(name, args);
    asked.set(name, made);
    return made;
  },
});

/**
 * The computation, in its worker. Started on first use, kept for the life of the page. Projects go there by number and steps
 * come back as what changed.
 */
export const core = (): Remote<CoreApi> => api;

/** Watches these slices from now on, and gets them for a project. */
export async function look(project: Project, names: readonly Slice[]): Promise<Partial<View>> {
  const ask = () => again(() => send([project], ([p]) => worker.ask((w) => w.look(p, [...names]))));
  try {
    return receiver.slices(await ask());
  } catch (e) {
    if (!(e instanceof Missed)) throw e;
    receiver.unpack(await worker.ask((w) => w.again()), project);
    return receiver.slices(await ask());
  }
}
