import type { Circuit } from "../../../circuit";
import { fingerprint } from "../../../project";
import { fillOwn } from "../../own/marks";
import { codeText, driverParts, isBare, region } from "../../pins";
import { driverOf } from "../../drivers";
import type { DriverPart, Lack } from "../../types";
import { programmerOf, programmerPage } from "../../programmer";
import { leftWords, ruled } from "../../rules";
import { usbHostOf } from "../../usb/host";
import { napOf } from "../../sleep";
import { uploadPage } from "../../upload";
import { targetOf, tidy } from "../target";
import { CHIPS } from "./chips";
import { byItsPins, hasRoom } from "./devices";
import { linesOf, talksOf } from "./parts";
import { isStrip, stripLacks } from "./strips";
import { boardFile, bringup, main, makefile, partsFile, pinsFile, type Ctx } from "./program";

/** A pin that nothing hangs on, for the console of a chip without a serial port: the programmer's lines last. */
function freePin(c: Circuit, host: string): string | null {
  const free = c.netlist
    .instance(host)!
    .part.pins.filter(
      (p) => p.names?.["avr-c"] && isBare(c, host, p.label) && p.offers?.some((o) => o.kind === "digital"),
    );
  const best = free.find((p) => !p.hazards?.length) ?? free.find((p) => !p.hazards?.some((h) => h.kind === "reset"));
  return best?.names?.["avr-c"] ?? null;
}

/** Where its text can be read. */
function consoleSteps(x: Ctx): string[] {
  const pin = x.chip.uart ? "its transmit pin" : x.console;
  return pin
    ? [
        `To read its text, join ${pin} to RX of a serial adapter of the same voltage, and GND to GND; 9600 baud. Without one the lights tell.`,
      ]
    : [];
}

/** Why plain C leaves a part to the person's own code, or null. */
function lacks(p: DriverPart): Lack | null {
  const capability = (why: string): Lack => ({ kind: "capability", why });
  if (p.through || p.via) return capability("plain C works what hangs on the chip itself, not on another part's lines");
  if (p.outs !== undefined) return capability("plain C does not work what hangs on its lines");
  if (isStrip(p)) return stripLacks(p);
  const talked = driverOf(p)?.id === p.inst.part.id;
  if (p.inst.part.groups.length && !talked)
    return capability("plain C does not talk to it here: it is for your own code");
  if (talked && !hasRoom(p) && !byItsPins(p))
    return capability(`${p.board.flash_kB} kB hold no program for a part that has to be talked to`);
  return null;
}

/** All that the programs of a chip are written from, and interpreted by. */
export function contextOf(c: Circuit, host: string): Ctx {
  const { chip, clock_Hz, flash_kB } = c.netlist.instance(host)!.part.board!;
  const parts = driverParts(c, host, "avr-c", (b) => b).filter((p) => lacks(p) === null);
  const said = c.project.rules ? ruled(c.project, parts, usbHostOf(c, host, "avr-c")) : null;
  return {
    c,
    host,
    chip: CHIPS[chip]!,
    clock_Hz,
    flash_kB,
    lines: linesOf(c, host, parts),
    talks: talksOf(c, host, parts),
    title: codeText(c.project.title) || "Project",
    plan: fingerprint(c.project),
    rules: said && said.rules.map((r) => r.resolved),
    left: said ? leftWords(said, "//") : "",
    nap: napOf(c, host, "avr-c"),
    programmer: programmerOf(c, host),
    signature: c.netlist.instance(host)!.part.board!.programming?.signature ?? null,
    console: CHIPS[chip]!.uart ? null : freePin(c, host),
  };
}

/** Plain C for bare chips: no core, a Makefile with the fuses, small enough for a kilobyte. */
export const avrC = targetOf({
  id: "avr-c",
  name: "Plain C",
  says: "main.c, bringup.c and a Makefile with fuses and programmer lines; avr-gcc, no core",
  unfit: ({ board, id }) => {
    if (board!.family !== "avr") return `plain C is written for AVR chips, not for ${board!.chip}`;
    if (!id.startsWith("chip/")) return `${board!.chip} on its board takes sketches`;
    return CHIPS[board!.chip] ? null : `no plain C is written for ${board!.chip} here`;
  },
  leaves: lacks,
  files: (c, host) => {
    const x = contextOf(c, host);
    return [
      pinsFile(x),
      boardFile(x),
      partsFile(x),
      bringup(x),
      main(x),
      makefile(x),
      uploadPage(c, host, "avr-c", consoleSteps(x), programmerPage(c, host)),
    ].flatMap((f) =>
      f ? [{ path: f.path, text: fillOwn(tidy(f.text, 1), "//", (name) => region(c, host, "avr-c", name)) }] : [],
    );
  },
});
