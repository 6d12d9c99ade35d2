import fs from "node:fs";
import path from "node:path";
import { pipeline } from "node:stream/promises";
import { Readable, Transform } from "node:stream";
import type { ReadableStream } from "node:stream/web";
import { z } from "zod";
import { zip } from "fflate";
import { backupTo, previewOf, restoreFrom, type Preview } from "../db/backup";
import { bringBack, clearBin, deleteForGood, listBin, type BinRow } from "../db/bin";
import { openFiles } from "../db/open-files";
import { newId } from "./ids";
import type { Outcome } from "./outcome";
import { forgetRooms } from "./rooms";
import { database, dataFolder, reopened } from "./store";

/** Larger than any class's data, bytes. */
const MOST_BYTES = 1_000_000_000;
const INCOMING = /^incoming-([\w-]{12})\.sqlite$/;
/** A file that was sent in and never used is thrown away after so long. */
const FORGOTTEN_MS = 3_600_000;

const incoming = (token: string) => path.join(dataFolder(), `incoming-${token}.sqlite`);
const day = () => new Date().toISOString().slice(0, 10);

function forgetOld() {
  for (const name of fs.readdirSync(dataFolder())) {
    const file = path.join(dataFolder(), name);
    const old = (fs.statSync(file, { throwIfNoEntry: false })?.mtimeMs ?? Infinity) < Date.now() - FORGOTTEN_MS;
    if (INCOMING.test(name) && old) fs.rmSync(file, { force: true });
  }
}

/** Everything in one file, verified. The file is the caller's: it is gone once it was read. */
export async function backupFile(): Promise<{ name: string; bytes: number; stream: ReadableStream }> {
  const file = path.join(dataFolder(), `backup-${newId()}.sqlite`);
  await backupTo(database(), file);
  const bytes = fs.statSync(file).size;
  const stream = fs.createReadStream(file);
  // Open already: its name can go, and nothing is left behind however the reading ends.
  await new Promise<void>((done, failed) => stream.once("open", () => done()).once("error", failed));
  fs.rmSync(file, { force: true });
  return { name: `young-lattice-${day()}.sqlite`, bytes, stream: Readable.toWeb(stream) as ReadableStream };
}

/** Takes a backup in and says what restoring it would do; nothing is changed yet. */
export async function receive(body: ReadableStream | null): Promise<Outcome<{ token: string; preview: Preview }>> {
  if (!body) return { status: 400, body: { message: "A backup file is wanted: it is called young-lattice-….sqlite." } };
  forgetOld();
  const token = newId();
  const file = incoming(token);
  let bytes = 0;
  const counted = new Transform({
    transform(chunk: Uint8Array, _encoding, done) {
      bytes += chunk.length;
      done(bytes > MOST_BYTES ? new Error("too large") : null, chunk);
    },
  });
  try {
    await pipeline(Readable.fromWeb(body), counted, fs.createWriteStream(file, { mode: 0o600 }));
    return { status: 200, body: { token, preview: previewOf(database(), file, dataFolder()) } };
  } catch (e) {
    fs.rmSync(file, { force: true });
    if (bytes > MOST_BYTES)
      return { status: 413, body: { message: `A backup is not larger than ${MOST_BYTES / 1e9} GB.` } };
    throw e;
  }
}

const TokenSchema = z.strictObject({ token: z.string().regex(/^[\w-]{12}$/), restore: z.boolean() });

/** Restores what was taken in, or forgets it. What was here is kept beside the data file, under the name that comes back. */
export async function answerCopy(input: unknown): Promise<Outcome<{ kept: string | null }>> {
  const parsed = TokenSchema.safeParse(input);
  if (!parsed.success) return { status: 400, body: { message: "Say which file, and whether to restore it." } };
  const file = incoming(parsed.data.token);
  if (!fs.existsSync(file))
    return { status: 404, body: { message: "That file is not here any more. Choose it once more." } };
  try {
    if (!parsed.data.restore) return { status: 200, body: { kept: null } };
    const kept = await restoreFrom(database(), file, dataFolder(), new Date());
    forgetRooms();
    reopened();
    return { status: 200, body: { kept } };
  } finally {
    fs.rmSync(file, { force: true });
  }
}

/** All projects and own parts as one ZIP of open files. Packing happens in threads of its own. */
export function exportZip(): Promise<{ name: string; data: Uint8Array }> {
  const tree = Object.fromEntries(
    Object.entries(openFiles(database())).map(([n, t]) => [n, new TextEncoder().encode(t)]),
  );
  return new Promise((resolve, reject) =>
    zip(tree, { level: 6, mtime: new Date(2000, 0, 1) }, (e, data) =>
      e ? reject(e) : resolve({ name: `young-lattice-${day()}.zip`, data }),
    ),
  );
}

/** Deleted projects; those whose time is over go first. */
export function bin(): BinRow[] {
  clearBin(database(), new Date());
  return listBin(database());
}

const BinSchema = z.strictObject({ id: z.string().max(40), do: z.enum(["bring back", "delete for good"]) });

/** Brings a deleted project back under its own address, or deletes it for good. */
export function answerBin(input: unknown): Outcome<{ id: string }> {
  const parsed = BinSchema.safeParse(input);
  if (!parsed.success)
    return { status: 400, body: { message: 'Say which project, and "bring back" or "delete for good".' } };
  const { id } = parsed.data;
  const done = parsed.data.do === "bring back" ? bringBack(database(), id) : deleteForGood(database(), id);
  // Its rooms are gone with it.
  forgetRooms();
  return done
    ? { status: 200, body: { id } }
    : {
        status: 404,
        body: { message: "That project is not in the bin. It may have been brought back in another tab." },
      };
}
