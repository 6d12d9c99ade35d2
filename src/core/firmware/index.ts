/** Firmware from the plan: pins files, bring-up and starter programs, one registry of targets. */
import { avrC } from "./targets/avr-c";
import { micropython } from "./targets/micropython";
import { python } from "./targets/python";
import { sketch } from "./targets/sketch";
import type { Circuit } from "../circuit";
import type { BoardWithout, FirmwareTarget } from "./types";

export * from "./types";
export { pinConstants, identifier, codeText } from "./pins";

export const TARGETS: readonly FirmwareTarget[] = [sketch, micropython, avrC, python];
/** Boards that no target writes a program for: nothing may read as if they had one. */
export const boardsWithout = (c: Circuit): BoardWithout[] =>
  c.netlist.expanded.hosts.flatMap((host) => {
    const why = TARGETS.map((t) => t.without(c).find((w) => w.host === host)?.why);
    return why.some((w) => w === undefined) ? [] : [{ host, why: [...new Set(why)].join("; ") }];
  });
export const targetById = (id: string) => TARGETS.find((t) => t.id === id);
