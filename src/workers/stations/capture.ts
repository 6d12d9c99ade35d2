import {
  compareCapture,
  matchChannels,
  readerFor,
  type Capture,
  type CaptureReader,
  type Compared,
} from "../../core/bench/captures";
import { circuitOf } from "../../core/circuit";
import type { Project } from "../../core/project";
import { catalogue, needFor } from "../loading";

/** A piece of a file that is read at one go. */
const PIECE_BYTES = 1 << 20;
const MOST_BYTES = 500_000_000;

export interface CaptureTold {
  name: string;
  span_s: number;
  says: readonly string[];
  channels: { name: string; changes: number; net: string | null }[];
  compared: readonly Compared[];
  problems: readonly string[];
}
export type CaptureAnswer = { ok: true; told: CaptureTold } | { ok: false; why: string };

let taken: { name: string; capture: Capture } | null = null;
let share = 0;
let stop = false;

function told(project: Project, map: Readonly<Record<string, string>>): CaptureTold {
  const { name, capture } = taken!;
  const c = circuitOf(project, catalogue);
  const m = matchChannels(c, capture, new Map(Object.entries(map).filter(([, to]) => to.trim())));
  return {
    name,
    span_s: capture.span,
    says: capture.says,
    channels: capture.channels.map((x) => ({
      name: x.name,
      changes: x.at.length,
      net: m.matched.find((y) => y.channel === x)?.net.name ?? null,
    })),
    compared: compareCapture(c, m),
    problems: m.problems,
  };
}

/** Captures of logic analysers, read piece by piece so that they can be stopped. */
export const captureApi = {
  async capture(project: Project, file: File): Promise<CaptureAnswer> {
    await needFor(project);
    stop = false;
    share = 0;
    if (file.size > MOST_BYTES)
      return { ok: false, why: `${file.name} is larger than 500 MB: take a shorter capture.` };
    const decoder = new TextDecoder();
    let reader: CaptureReader | null = null;
    for (let at = 0; at < file.size; at += PIECE_BYTES) {
      if (stop) return { ok: false, why: "Stopped. Nothing was taken over." };
      const text = decoder.decode(await file.slice(at, at + PIECE_BYTES).arrayBuffer(), { stream: true });
      reader ??= readerFor(text);
      const why = reader.push(text);
      if (why) return { ok: false, why: `${file.name} can't be read: ${why}.` };
      share = Math.min(1, (at + PIECE_BYTES) / file.size);
    }
    const end = (reader ?? readerFor("")).end();
    if (!end.ok) return { ok: false, why: `${file.name} can't be read: ${end.why}.` };
    taken = { name: file.name, capture: end.capture };
    return { ok: true, told: told(project, {}) };
  },
  /** How far it is, 0 to 1. */
  captureShare(): number {
    return share;
  },
  captureStop(): void {
    stop = true;
  },
  /** The same capture with channels put to other points. */
  async captureAs(project: Project, map: Readonly<Record<string, string>>): Promise<CaptureTold | null> {
    await needFor(project);
    return taken && told(project, map);
  },
};
