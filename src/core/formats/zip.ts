import { zipSync, type Zippable } from "fflate";

const encoder = new TextEncoder();

/** A path that stays inside the archive: no drive, no leading slash, no `..`, only plain characters. */
export function safePath(path: string): string {
  return path
    .split(/[\\/]+/)
    .map((p) => p.replace(/[^A-Za-z0-9._-]/g, "_"))
    .filter((p) => p && p !== "." && p !== "..")
    .join("/");
}

/** A ZIP of files; the fixed date makes the same files the same bytes. */
export function makeZip(files: Record<string, string | Uint8Array>): Uint8Array {
  const tree: Zippable = {};
  for (const [path, data] of Object.entries(files))
    tree[safePath(path)] = [
      typeof data === "string" ? encoder.encode(data) : data,
      { mtime: new Date(2000, 0, 1), level: 6 },
    ];
  return zipSync(tree);
}
