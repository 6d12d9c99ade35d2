import os from "node:os";
import { holderOf, isLocked, isUnlocked } from "./holders";

/** Host names under which the app always answers. Anything else may be a page elsewhere that points at this machine. */
const LOCAL = /^(localhost|127\.0\.0\.1|\[::1\])$/;

/** What a request calls this machine, and the port behind it. */
function asked(headers: Headers): { name: string; port: string } {
  const host = (headers.get("host") ?? "").toLowerCase();
  const at = /:(\d+)$/.exec(host);
  return { name: at ? host.slice(0, at.index) : host, port: at?.[1] ?? "" };
}

/** This machine's own addresses and names on its networks. */
function ownNames(): Set<string> {
  const addresses = Object.values(os.networkInterfaces()).flatMap((list) => list ?? []);
  const name = os.hostname().toLowerCase();
  return new Set([
    ...addresses.map((a) => (a.family === "IPv6" ? `[${a.address.toLowerCase()}]` : a.address)),
    name,
    `${name.split(".")[0]!}.local`,
  ]);
}

/** Whether the app answers under the name that the request asked for: with --lan also this machine's own, never any other. */
export function hostAllowed(headers: Headers): boolean {
  const { name } = asked(headers);
  return LOCAL.test(name) || (process.env.LATTICE_LAN === "1" && ownNames().has(name));
}

/** The cookie that a browser gets by opening the bench's own link; with --lan, only it may write. Cookies know no ports: its name does. */
export const benchCookie = (headers: Headers): string => `lattice-bench-${asked(headers).port || "80"}`;

/** Who may write among those who read, by the bench's link; null: nobody was let in. */
export const holder = (headers: Headers): string | null =>
  process.env.LATTICE_BENCH ? holderOf(headers, benchCookie(headers)) : null;

/** The cookie of a browser that gave the passphrase of a shared computer. */
export const openCookie = (headers: Headers): string => `lattice-open-${asked(headers).port || "80"}`;

/** Whether the passphrase of a shared computer is still to be given. */
export const locked = (headers: Headers): boolean => isLocked() && !isUnlocked(headers, openCookie(headers));

/** Methods that only read. */
export const READS: ReadonlySet<string> = new Set(["GET", "HEAD"]);

/**
 * Null when a request may be served, else why not. The Host must be this machine's own name (with --lan its names on the
 * network too); where the browser says which page asks, it must be one of ours; and with --lan, writing needs the bench's own link.
 */
export function refusal(headers: Headers, method = "GET"): string | null {
  const host = headers.get("host") ?? "";
  if (!hostAllowed(headers)) return "This address is not served here. Open the app at 127.0.0.1.";
  const origin = headers.get("origin");
  if (origin && origin !== `http://${host}` && origin !== `https://${host}`)
    return "Requests from other sites are refused.";
  const site = headers.get("sec-fetch-site");
  if (site && site !== "same-origin" && site !== "none") return "Requests from other sites are refused.";
  if (process.env.LATTICE_LAN === "1" && !READS.has(method) && holder(headers) === null)
    return "This class copy is for reading. Open the bench's own link to change things.";
  return null;
}
