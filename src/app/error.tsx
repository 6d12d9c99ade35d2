"use client";
import { Broken } from "@/ui/frame/broken";

/** What stands in place of a view that failed. */
export default function ErrorPage({ error, reset }: { error: Error & { digest?: string }; reset(): void }) {
  return <Broken error={error} again={reset} />;
}
