import { randomBytes } from "node:crypto";
import os from "node:os";
import { z } from "zod";
import { circuitOf } from "../core/circuit";
import { toCsv } from "../core/formats/csv";
import { stepsOf } from "../core/lesson";
import { shippedCatalogue } from "../core/parts/catalogue/shipped";
import { fingerprint, LESSON_DEFAULT, loadProject } from "../core/project";
import {
  applyTell,
  codeFrom,
  foldBench,
  FREE,
  readCode,
  TalkSchema,
  TellSchema,
  type BenchState,
  type Control,
  type Did,
  type Kept,
  type RoomStep,
} from "../core/room";
import * as rows from "../db/rooms";
import { getProject } from "../db/projects";
import { newId } from "./ids";
import type { Outcome } from "./outcome";
import { database } from "./store";

/** A bench as it is held in memory: polling never reads the disk. */
interface Bench {
  n: number;
  code: string;
  control: Control;
  events: Kept[];
  ids: Set<string>;
  state: BenchState;
  /** When it was last heard of; not kept. */
  seen: number;
}
interface Room {
  id: string;
  title: string;
  plan: string;
  project: string;
  steps: RoomStep[];
  benches: Bench[];
}
interface Held {
  rooms: Map<string, Room>;
  codes: Map<string, { room: string; n: number }>;
  wrong: { at: number; n: number };
}
const holder = globalThis as typeof globalThis & { latticeRooms?: Held };
const held = (): Held => (holder.latticeRooms ??= { rooms: new Map(), codes: new Map(), wrong: { at: 0, n: 0 } });

/** Nothing that is held in memory holds any more: the data were put back from a copy. */
export const forgetRooms = (): void => {
  holder.latticeRooms = undefined;
};

const noRoom = { status: 404 as const, body: { message: "There is no such room. It may have been deleted." } };
const noBench = {
  status: 404 as const,
  body: { message: "No bench has this code. Look at the card again, or the lesson is over." },
};
/** So many codes that are none are heard in a minute: who guesses does not get far. */
const MOST_WRONG = 60;
const MINUTE = 60_000;
/** A bench that was not heard of for so long has lost the network, or its page. */
const GONE_MS = 15_000;
/** More than a lesson ever does: a page that goes wild fills no disk. */
const MOST_KEPT = 5000;

function roomOf(id: string): Room | null {
  const there = held().rooms.get(id);
  if (there) return there;
  const row = rows.getRoom(database(), id);
  if (!row) return null;
  const steps = JSON.parse(row.steps) as RoomStep[];
  const events = rows.eventsOf(database(), id);
  const room: Room = {
    id,
    title: row.title,
    plan: row.plan,
    project: row.project_id,
    steps,
    benches: rows.benchesOf(database(), id).map((b): Bench => {
      const mine = events
        .filter((e) => e.n === b.n)
        .map((e): Kept => ({ id: e.id, at: e.at, did: JSON.parse(e.did) as Did }));
      return {
        n: b.n,
        code: b.code,
        control: JSON.parse(b.control) as Control,
        events: mine,
        ids: new Set(mine.map((e) => e.id)),
        state: foldBench(steps, mine),
        seen: 0,
      };
    }),
  };
  held().rooms.set(id, room);
  for (const b of room.benches) held().codes.set(b.code, { room: id, n: b.n });
  return room;
}

function benchOf(text: string): { room: Room; bench: Bench } | null {
  const code = readCode(text);
  if (code === null) return null;
  const at = held().codes.get(code) ?? roomByCode(code);
  const room = at ? roomOf(at.room) : null;
  const bench = at ? room?.benches.find((b) => b.n === at.n) : undefined;
  return room && bench ? { room, bench } : null;
}
function roomByCode(code: string): { room: string; n: number } | null {
  const row = rows.benchByCode(database(), code);
  return row ? { room: row.room_id, n: row.n } : null;
}

const OpenSchema = z.strictObject({ project: z.string().max(60), benches: z.number().int().min(1).max(60) });

/** Opens a room for a lesson on a project as it is now: what is changed in the project later does not reach the benches. */
export function openRoom(input: unknown): Outcome<{ id: string }> {
  const parsed = OpenSchema.safeParse(input);
  if (!parsed.success) return { status: 400, body: { message: "A room is for a project, and for 1 to 60 benches." } };
  const row = getProject(database(), parsed.data.project);
  if (!row) return { status: 404, body: { message: "There is no such project." } };
  const read = loadProject(JSON.parse(row.document), shippedCatalogue());
  if (!read.ok) return { status: 409, body: { message: "The data of this project are damaged and can't be used." } };
  // What was measured at the teacher's own bench is nobody else's.
  const project = { ...read.project, bench: [] };
  const { level } = project.lesson ?? LESSON_DEFAULT;
  const steps = stepsOf(circuitOf(project, shippedCatalogue()), level).map((s): RoomStep => ({
    id: s.id,
    title: s.title,
    sign: s.sign,
  }));
  const used = new Set<string>();
  const fresh = (): string => {
    const code = codeFrom(() => randomBytes(16));
    if (used.has(code) || rows.benchByCode(database(), code)) return fresh();
    used.add(code);
    return code;
  };
  const id = newId();
  rows.insertRoom(
    database(),
    {
      id,
      project_id: parsed.data.project,
      title: project.title,
      document: JSON.stringify(project),
      steps: JSON.stringify(steps),
      plan: fingerprint(project),
      created_at: new Date().toISOString(),
    },
    Array.from({ length: parsed.data.benches }, (_, i) => ({ n: i + 1, code: fresh(), control: JSON.stringify(FREE) })),
  );
  return { status: 201, body: { id } };
}

export const roomsOf = (project: string): Outcome<{ rooms: { id: string; title: string; created_at: string }[] }> => ({
  status: 200,
  body: { rooms: rows.listRooms(database(), project) },
});

/** This machine's addresses on its networks, for the benches' links. */
const addresses = (): string[] =>
  Object.values(os.networkInterfaces())
    .flatMap((list) => list ?? [])
    .filter((a) => a.family === "IPv4" && !a.internal)
    .map((a) => a.address);

export interface RoomBench {
  n: number;
  code: string;
  control: Control;
  state: BenchState;
  here: boolean;
}
export interface RoomView {
  id: string;
  title: string;
  plan: string;
  project: string;
  steps: RoomStep[];
  now: string;
  lan: boolean;
  addresses: string[];
  benches: RoomBench[];
}

/** How far all benches are; all that one of them read, only of the one that is asked for. */
export function readRoom(id: string, whole?: number): Outcome<RoomView> {
  const room = roomOf(id);
  if (!room) return noRoom;
  const now = Date.now();
  return {
    status: 200,
    body: {
      id,
      title: room.title,
      plan: room.plan,
      project: room.project,
      steps: room.steps,
      now: new Date(now).toISOString(),
      lan: process.env.LATTICE_LAN === "1",
      addresses: addresses(),
      benches: room.benches.map(({ n, code, control, state, seen }) => ({
        n,
        code,
        control,
        state: n === whole ? state : { ...state, entries: [] },
        here: now - seen < GONE_MS,
      })),
    },
  };
}

/** The plan of a room as its benches have it. */
export function roomDocument(id: string): Outcome<{ document: unknown }> {
  const row = rows.getRoom(database(), id);
  return row ? { status: 200, body: { document: JSON.parse(row.document) } } : noRoom;
}

/** The teacher does something to one bench or to all. */
export function tellRoom(id: string, input: unknown): Outcome<{ told: number }> {
  const room = roomOf(id);
  if (!room) return noRoom;
  const parsed = TellSchema.safeParse(input);
  if (!parsed.success)
    return {
      status: 400,
      body: {
        message:
          "This is nothing that a bench can be told: a hint of 300 letters at most, to freeze, a fault, a step that is signed.",
      },
    };
  const { bench, do: what } = parsed.data;
  const meant = room.benches.filter((b) => bench === "all" || b.n === bench);
  if (!meant.length) return { status: 404, body: { message: `There is no bench ${bench} in this room.` } };
  const at = new Date().toISOString();
  for (const b of meant) {
    b.control = applyTell(b.control, what, b.n, at);
    // Who was seen has no hand up any more.
    if ((what.kind === "seen" || what.kind === "sign" || what.kind === "hint") && b.state.hand)
      keep(room, b, [{ id: `seen-${newId()}`, at, did: { kind: "hand", up: false, why: what.kind } }]);
  }
  rows.setControls(
    database(),
    id,
    meant.map((b) => ({ n: b.n, control: JSON.stringify(b.control) })),
  );
  return { status: 200, body: { told: meant.length } };
}

/** Puts what a bench did on record and works out anew how far it is; what is known already changes nothing. */
function keep(room: Room, b: Bench, list: readonly Kept[]): void {
  const news = list.filter((e) => !b.ids.has(e.id));
  if (!news.length) return;
  rows.addEvents(
    database(),
    news.map((e) => ({ room_id: room.id, n: b.n, id: e.id, at: e.at, did: JSON.stringify(e.did) })),
  );
  for (const e of news) b.ids.add(e.id);
  b.events.push(...news);
  b.state = foldBench(room.steps, b.events);
}

/** Counts codes that are none; true when it is too many. */
function guessed(): boolean {
  const { wrong } = held();
  const now = Date.now();
  if (now - wrong.at > MINUTE) Object.assign(wrong, { at: now, n: 0 });
  return ++wrong.n > MOST_WRONG;
}
const tooMany = { status: 429 as const, body: { message: "Too many codes that are none. Wait a minute." } };
type Answer<T> = Outcome<T> | typeof tooMany;

/** What a bench's page begins with. */
export function enterBench(code: string): Answer<{
  n: number;
  title: string;
  plan: string;
  document: unknown;
  control: Control;
  entries: BenchState["entries"];
}> {
  const found = benchOf(code);
  if (!found) return guessed() ? tooMany : noBench;
  const row = rows.getRoom(database(), found.room.id);
  if (!row) return noBench;
  found.bench.seen = Date.now();
  return {
    status: 200,
    body: {
      n: found.bench.n,
      title: found.room.title,
      plan: found.room.plan,
      document: JSON.parse(row.document),
      control: found.bench.control,
      entries: found.bench.state.entries,
    },
  };
}

/** A bench tells what it did and hears what is told to it: what holds now, when that is other than what it knows. */
export function talk(code: string, input: unknown): Answer<{ got: string[]; control: Control | null; hand: boolean }> {
  const found = benchOf(code);
  if (!found) return guessed() ? tooMany : noBench;
  const parsed = TalkSchema.safeParse(input);
  if (!parsed.success)
    return {
      status: 400,
      body: { message: `The bench said something that can't be read: ${parsed.error.issues[0]?.path.join("/")}` },
    };
  const { room, bench } = found;
  const now = Date.now();
  bench.seen = now;
  if (bench.events.length + parsed.data.events.length > MOST_KEPT)
    return { status: 413, body: { message: "This bench has done more than a lesson holds. Open a new room." } };
  keep(
    room,
    bench,
    parsed.data.events.map((e) => ({ id: e.id, at: new Date(now - e.ago_ms).toISOString(), did: e.did })),
  );
  return {
    status: 200,
    body: {
      got: parsed.data.events.map((e) => e.id),
      control: bench.control.rev === parsed.data.rev ? null : bench.control,
      hand: bench.state.hand !== null,
    },
  };
}

/** Everything that was done in a room, as a table: no names, only benches. */
export function roomCsv(id: string): Outcome<{ csv: string; title: string }> {
  const room = roomOf(id);
  if (!room) return noRoom;
  const step = new Map(room.steps.map((s, i) => [s.id, `${i + 1}. ${s.title}`]));
  const line = (n: number, e: Kept): (string | number)[] => {
    const d = e.did;
    if (d.kind === "tick")
      return [
        n,
        e.at,
        d.list === "wires" ? "step" : "check",
        step.get(d.of) ?? d.of,
        d.done ? "done" : "not",
        d.reading ?? "",
      ];
    if (d.kind === "hand") return [n, e.at, "hand", d.why, d.up ? "up" : "down", ""];
    return [
      n,
      e.at,
      "fault",
      `${d.level} ${d.seed}`,
      d.found ? "found" : "not found",
      `${d.points} points, ${d.measured} measurements, ${d.minutes} minutes`,
    ];
  };
  return {
    status: 200,
    body: {
      title: room.title,
      csv: toCsv(
        ["bench", "at", "what", "which", "how", "reading"],
        room.benches.flatMap((b) => [...b.events].sort((x, y) => (x.at < y.at ? -1 : 1)).map((e) => line(b.n, e))),
      ),
    },
  };
}

/** Takes a room away with everything that was done in it. */
export function removeRoom(id: string): Outcome<{ removed: true }> {
  const room = held().rooms.get(id);
  for (const b of room?.benches ?? []) held().codes.delete(b.code);
  held().rooms.delete(id);
  return rows.deleteRoom(database(), id) ? { status: 200, body: { removed: true } } : noRoom;
}
