import { createHash, createHmac, randomBytes, scryptSync, timingSafeEqual } from "node:crypto";

/** A browser that opened the bench's own link: it may change things until somebody closes that. */
export interface Holder {
  id: string;
  /** Which browser on which system, as it says itself, and from where. */
  who: string;
  since: string;
  seen: string;
}

interface Kept {
  holders: Map<string, Holder>;
  closed: Set<string>;
  /** Another with each start: what was let in before is not any more. The same wherever in this process it is asked for. */
  secret: Buffer;
  /** When a wrong passphrase was last given, and how many in a row. */
  wrong: { at: number; n: number };
}
const holder = globalThis as typeof globalThis & { latticeHolders?: Kept };
const secret = () => {
  const { LATTICE_BENCH, LATTICE_PASSPHRASE, LATTICE_SECRET } = process.env;
  return createHash("sha256")
    .update(JSON.stringify([LATTICE_SECRET, LATTICE_BENCH, LATTICE_PASSPHRASE, process.pid]))
    .digest();
};
const kept = (): Kept =>
  (holder.latticeHolders ??= { holders: new Map(), closed: new Set(), secret: secret(), wrong: { at: 0, n: 0 } });

const signed = (id: string) => `${id}.${createHmac("sha256", kept().secret).update(id).digest("base64url")}`;
const same = (a: string, b: string) => {
  const [x, y] = [Buffer.from(a), Buffer.from(b)];
  return x.length === y.length && timingSafeEqual(x, y);
};
const cookie = (headers: Headers, name: string): string | undefined =>
  (headers.get("cookie") ?? "")
    .split(/;\s*/)
    .find((c) => c.startsWith(`${name}=`))
    ?.slice(name.length + 1);

const BROWSERS = [/Firefox/, /Edg/, /OPR/, /Chrome|Chromium/, /Safari/] as const;
const SYSTEMS = [/Android/, /iPhone|iPad/, /CrOS/, /Windows/, /Mac OS/, /Linux/] as const;
const named = (agent: string, list: readonly RegExp[], none: string) =>
  list.map((re) => re.exec(agent)?.[0]).find((x) => x !== undefined) ?? none;
/** Words of our own only: what a browser says of itself is anything. */
const whoIs = (headers: Headers) => {
  const agent = headers.get("user-agent") ?? "";
  const from = (headers.get("x-forwarded-for") ?? "").split(",")[0]!.trim();
  return `${named(agent, BROWSERS, "a browser")} on ${named(agent, SYSTEMS, "some system")}${/^[\d.:a-f]{2,45}$/i.test(from) ? `, ${from}` : ""}`;
};

/** The cookie's value for a browser that opened the bench's link; null when the key is not right. */
export function admit(key: string | null, headers: Headers): string | null {
  const right = process.env.LATTICE_BENCH;
  if (!right || !key || !same(key, right)) return null;
  const id = randomBytes(9).toString("base64url");
  const now = new Date().toISOString();
  kept().holders.set(id, { id, who: whoIs(headers), since: now, seen: now });
  return signed(id);
}

/** Which holder asks; null when nobody was let in, or was closed out since. */
export function holderOf(headers: Headers, name: string): string | null {
  const value = cookie(headers, name);
  const id = value?.split(".")[0];
  if (!value || !id || !same(value, signed(id))) return null;
  if (kept().closed.has(id)) return null;
  const now = new Date().toISOString();
  const here = kept().holders.get(id) ?? { id, who: whoIs(headers), since: now, seen: now };
  kept().holders.set(id, { ...here, seen: now });
  return id;
}

/** Everybody who holds the link now, the latest first; `mine` marks the one that asks. */
export const holders = (mine: string | null): (Holder & { mine: boolean })[] =>
  [...kept().holders.values()]
    .filter((h) => !kept().closed.has(h.id))
    .sort((a, b) => (a.seen < b.seen ? 1 : -1))
    .map((h) => ({ ...h, mine: h.id === mine }));

/** Closes one holder out; from now on it only reads. */
export function closeHolder(id: string): boolean {
  if (!kept().holders.has(id) || kept().closed.has(id)) return false;
  kept().closed.add(id);
  return true;
}

/** Whether this copy wants a passphrase, as on a computer that several share. */
export const isLocked = (): boolean => Boolean(process.env.LATTICE_PASSPHRASE);
const OPEN = "open";

/** Whether a browser has given the passphrase since the app was started. */
export function isUnlocked(headers: Headers, name: string): boolean {
  const value = cookie(headers, name);
  return value !== undefined && same(value, signed(OPEN));
}

const WAIT_MS = 1000;
const MOST_WAIT_MS = 60_000;
/** The same time for every passphrase, right or wrong. */
const hashed = (text: string) => scryptSync(text.slice(0, 200), kept().secret, 32);

/** The cookie's value for the right passphrase; else how long to wait before the next try, milliseconds. */
export function unlock(passphrase: string, now = Date.now()): { cookie: string } | { wait_ms: number } {
  const { wrong } = kept();
  const wait = wrong.n ? Math.min(MOST_WAIT_MS, WAIT_MS * 2 ** (wrong.n - 1)) : 0;
  const left = wrong.at + wait - now;
  if (left > 0) return { wait_ms: left };
  if (timingSafeEqual(hashed(passphrase), hashed(process.env.LATTICE_PASSPHRASE ?? ""))) {
    wrong.n = 0;
    return { cookie: signed(OPEN) };
  }
  wrong.n++;
  wrong.at = now;
  return { wait_ms: Math.min(MOST_WAIT_MS, WAIT_MS * 2 ** (wrong.n - 1)) };
}
