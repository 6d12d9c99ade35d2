import { NextResponse, type NextRequest } from "next/server";
import { benchCookie, hostAllowed, locked, READS } from "./server/guard";
import { admit } from "./server/holders";

/**
 * Styles that libraries put in by themselves and give no word to: the messages at the foot of the window (an empty element first,
 * then its text), and what drawings are moved with. Another text is refused, and a journey fails.
 */
const KNOWN_STYLES = [
  "47DEQpj8HBSa+/TImW+5JCeuQeRkm5NMpJWZG3hSuFU=",
  "StEaX+se6YS7pqjzrzMIA0KaX9zF/8zAhvQXZAe5epY=",
  "/aQdAPrD+kc0v7HnGQTuKBtoP6ZN+lnzOGVJ1Qt6dfw=",
];

/** Pages: refuse foreign hosts, and allow only scripts that this app itself put on the page. */
export function proxy(request: NextRequest) {
  if (!hostAllowed(request.headers)) return new NextResponse("This address is not served here.", { status: 403 });
  if (!READS.has(request.method) && !request.nextUrl.pathname.startsWith("/api/"))
    return new NextResponse("Pages are only read.", { status: 405, headers: { allow: "GET, HEAD" } });
  const cookie = admit(request.nextUrl.searchParams.get("bench"), request.headers);
  if (cookie !== null) {
    const clean = request.nextUrl.clone();
    clean.searchParams.delete("bench");
    const answer = NextResponse.redirect(
      new URL(`${clean.pathname}${clean.search}`, `http://${request.headers.get("host")}`),
    );
    answer.cookies.set(benchCookie(request.headers), cookie, { httpOnly: true, sameSite: "strict", path: "/" });
    return answer;
  }
  const { pathname } = request.nextUrl;
  if (pathname !== "/unlock" && !pathname.startsWith("/api/") && locked(request.headers))
    return NextResponse.redirect(
      new URL(`/unlock?to=${encodeURIComponent(pathname)}`, `http://${request.headers.get("host")}`),
    );
  const nonce = Buffer.from(crypto.randomUUID()).toString("base64");
  const dev = process.env.NODE_ENV === "development";
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}'${dev ? " 'unsafe-eval'" : ""}`,
    `style-src 'self' 'nonce-${nonce}' ${KNOWN_STYLES.map((h) => `'sha256-${h}'`).join(" ")}`,
    "img-src 'self' data: blob:",
    "font-src 'self'",
    "worker-src 'self' blob:",
    `connect-src 'self'${dev ? " ws:" : ""}`,
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");
  const headers = new Headers(request.headers);
  headers.set("x-nonce", nonce);
  headers.set("content-security-policy", policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set("content-security-policy", policy);
  return response;
}

export const config = { matcher: [{ source: "/((?!_next/static|favicon).*)" }] };
