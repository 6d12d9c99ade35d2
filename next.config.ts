import type { NextConfig } from "next";

/** What goes with everything that is served: nothing is guessed, framed, shared with other sites or told to them. */
const ALWAYS = [
  ["X-Content-Type-Options", "nosniff"],
  ["Referrer-Policy", "no-referrer"],
  ["Cross-Origin-Opener-Policy", "same-origin"],
  ["Cross-Origin-Resource-Policy", "same-origin"],
  // A serial port is asked for at the bench; nothing else of the computer is needed.
  [
    "Permissions-Policy",
    "camera=(), display-capture=(), geolocation=(), hid=(), microphone=(), midi=(), payment=(), serial=(self), usb=()",
  ],
] as const;
const named = (list: readonly (readonly [string, string])[]) => list.map(([key, value]) => ({ key, value }));

const config: NextConfig = {
  headers: () =>
    Promise.resolve([
      { source: "/:path*", headers: named(ALWAYS) },
      // What is in the database is nobody's to keep a copy of.
      { source: "/api/:path*", headers: named([["Cache-Control", "no-store"]]) },
    ]),
  serverExternalPackages: ["better-sqlite3", "elkjs", "highs"],
  poweredByHeader: false,
  reactStrictMode: true,
  devIndicators: false,
};

export default config;
