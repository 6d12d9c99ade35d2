"use client";
import { Broken } from "@/ui/frame/broken";
import "./globals.css";

/** What stands in place of the whole page when even its frame failed. */
export default function GlobalError({ error, reset }: { error: Error & { digest?: string }; reset(): void }) {
  return (
    <html lang="en">
      <body>
        <Broken error={error} again={reset} />
      </body>
    </html>
  );
}
