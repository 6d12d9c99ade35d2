import type { Circuit } from "../../circuit";
import { REGIONS } from "../../project/own-code";
import type { Edit } from "../../project/edits";
import { TARGETS } from "..";
import { regionKey } from "../pins";
import { readOwn } from "./marks";

export interface Adopted {
  /** One for each region that is other in the files than in the project. */
  edits: Extract<Edit, { type: "setCode" }>[];
  taken: { target: string; path: string; region: string; lines: number }[];
  /** Files that were changed where only the plan may: what was written there is not taken. */
  outside: string[];
  /** What can't be read, with file and line. */
  problems: string[];
  /** Program files that were looked at. */
  seen: number;
}

const bare = (path: string, host: string) => (path.startsWith(`${host}/`) ? path.slice(host.length + 1) : path);
/** Own code longer than this is refused by the project file. */
const MOST_CHARACTERS = 100_000;

/**
 * Own code out of edited program files, as edits of the project. `read` gives the text of a file of a target, by the path that
 * the target would write now, or null where there is none.
 */
export function adopt(c: Circuit, read: (target: string, path: string) => string | null): Adopted {
  const out: Adopted = { edits: [], taken: [], outside: [], problems: [], seen: 0 };
  const hosts = c.netlist.expanded.hosts;
  for (const t of TARGETS) {
    if (t.unfit(c) !== null) continue;
    for (const f of t.files(c)) {
      if (!readOwn(f.text).regions.size) continue;
      const found = read(t.id, f.path);
      if (found === null) continue;
      out.seen++;
      const host = hosts.find((h) => bare(f.path, h) !== f.path) ?? hosts[0]!;
      const own = readOwn(found);
      out.problems.push(...own.problems.map((p) => `${f.path}, ${p}`));
      if (own.outside) out.outside.push(f.path);
      if (own.problems.length) continue;
      for (const [name, { text: found }] of own.regions) {
        // A place with nothing but blank lines is empty.
        const text = found.trim() ? found : "";
        if (!REGIONS[t.id]?.includes(name)) {
          out.problems.push(
            `${f.path}: there is no place "${name}" for own code; its places are ${REGIONS[t.id]?.join(", ")}`,
          );
          continue;
        }
        if (text.length > MOST_CHARACTERS) {
          out.problems.push(`${f.path}: "${name}" is longer than ${MOST_CHARACTERS / 1000},000 characters`);
          continue;
        }
        const region = regionKey(c, host, name);
        const was = c.project.code[t.id]?.[region] ?? "";
        if (text === was || text === `${was}\n`) continue;
        out.edits.push({ type: "setCode", target: t.id, region, text });
        out.taken.push({ target: t.id, path: f.path, region: name, lines: text.split("\n").length - 1 });
      }
    }
  }
  return out;
}
