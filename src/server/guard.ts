/** Host names under which the app answers. Anything else is a page elsewhere that points at this machine. */
const LOCAL = /^(localhost|127\.0\.0\.1|\[::1\])(:\d+)?$/;

/** Whether the app answers under the name that the request asked for; any name with --lan. */
export const hostAllowed = (headers: Headers) =>
  process.env.LATTICE_LAN === "1" || LOCAL.test(headers.get("host") ?? "");

/** The cookie that a browser gets by opening the bench's own link; with --lan, only it may write. */
export const BENCH_COOKIE = "lattice-bench";

const holdsBenchKey = (headers: Headers) => {
  const key = process.env.LATTICE_BENCH;
  const cookies = (headers.get("cookie") ?? "").split(/;\s*/);
  return Boolean(key) && cookies.includes(`${BENCH_COOKIE}=${key}`);
};

/**
 * Null when a request may be served, else why not. The Host must be this machine's own name (or any, with --lan); where
 * the browser says which page asks, it must be one of ours; and with --lan, writing needs the bench's own link.
 */
export function refusal(headers: Headers, method = "GET"): string | null {
  const host = headers.get("host") ?? "";
  if (!hostAllowed(headers)) return "This address is not served here. Open the app at 127.0.0.1.";
  const origin = headers.get("origin");
  if (origin && origin !== `http://${host}` && origin !== `https://${host}`)
    return "Requests from other sites are refused.";
  const site = headers.get("sec-fetch-site");
  if (site && site !== "same-origin" && site !== "none") return "Requests from other sites are refused.";
  if (process.env.LATTICE_LAN === "1" && method !== "GET" && !holdsBenchKey(headers))
    return "This class copy is for reading. Open the bench's own link to change things.";
  return null;
}
