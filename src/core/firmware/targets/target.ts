import type { Circuit } from "../../circuit";
import type { Part } from "../../parts/catalogue";
import type { FirmwareFile, FirmwareTarget } from "../types";

/** Text as it goes into a file: nothing at the ends of lines, at most so many empty lines together, one end. */
export const tidy = (text: string, emptyLines: number) =>
  `${text
    .replace(/[ \t]+$/gm, "")
    .replace(new RegExp(`\n{${emptyLines + 2},}`, "g"), "\n".repeat(emptyLines + 1))
    .trimEnd()}\n`;

const boardOf = (c: Circuit, host: string): Part => c.netlist.instance(host)!.part;

/** A target from what it says of one board and writes for one board: every board of a project is looked at by itself. */
export function targetOf(o: {
  id: string;
  name: string;
  says: string;
  /** Null when this board can be programmed so, else why not. */
  unfit(board: Part): string | null;
  files(c: Circuit, host: string): FirmwareFile[];
  leaves?: FirmwareTarget["leaves"];
}): FirmwareTarget {
  const hosts = (c: Circuit) => c.netlist.expanded.hosts.map((host) => ({ host, why: o.unfit(boardOf(c, host)) }));
  return {
    id: o.id,
    ...(o.leaves && { leaves: o.leaves }),
    name: o.name,
    says: o.says,
    unfit: (c) => {
      const all = hosts(c);
      if (!all.length) return "there is no board in the project yet";
      return all.some((h) => h.why === null) ? null : all[0]!.why;
    },
    without: (c) => hosts(c).flatMap(({ host, why }) => (why === null ? [] : [{ host, why }])),
    files: (c) => {
      const all = hosts(c);
      return all.flatMap(({ host, why }) =>
        why === null
          ? o.files(c, host).map((f) => ({ ...f, path: all.length > 1 ? `${host}/${f.path}` : f.path }))
          : [],
      );
    },
  };
}
