import { fingerprint } from "../../../project";
import { driverOf } from "../../drivers";
import { codeText, driverParts, ownLight, region } from "../../pins";
import { fillOwn } from "../../own/marks";
import type { FirmwareFile } from "../../types";
import { uploadPage } from "../../upload";
import { targetOf } from "../target";
import { bringup } from "./bringup";
import { pinsFile, type Ctx } from "./ctx";
import { starter } from "./starter";

/** Below this no MicroPython is built for a chip. */
const LEAST_RAM_KB = 16;

const tidy = (f: FirmwareFile): FirmwareFile => ({
  path: f.path,
  text: `${f.text
    .replace(/[ \t]+$/gm, "")
    .replace(/\n{4,}/g, "\n\n\n")
    .trimEnd()}\n`,
});

/** MicroPython files: pins, bring-up, a non-blocking main and small driver modules. */
export const micropython = targetOf({
  id: "micropython",
  name: "MicroPython",
  says: "main.py, bringup.py, pins.py and lib/ to copy onto the board",
  unfit: ({ board }) => {
    if (board!.targets.micropython) return null;
    return board!.ram_kB < LEAST_RAM_KB
      ? `${board!.chip} has too little memory for MicroPython`
      : `no MicroPython program is written for ${board!.chip} here`;
  },
  files: (c, host) => {
    const x: Ctx = {
      c,
      host,
      family: c.netlist.instance(host)!.part.board!.family,
      parts: driverParts(c, host, "micropython", (b) => b),
      title: codeText(c.project.title) || "Project",
      plan: fingerprint(c.project),
      light: ownLight(c, host, "micropython"),
    };
    const libs = new Map(x.parts.flatMap((p) => driverOf(p)?.micropython?.lib ?? []).map((l) => [l.path, l.text]));
    return [
      pinsFile(x),
      bringup(x),
      starter(x),
      ...[...libs].map(([path, text]) => ({ path, text })),
      uploadPage(c, host, "micropython"),
    ].map((f) => {
      const clean = tidy(f);
      return { ...clean, text: fillOwn(clean.text, "#", (name) => region(c, host, "micropython", name)) };
    });
  },
});
