import type { Circuit } from "../circuit";
import { findPin, optionValues } from "../parts/catalogue";
import { codeText } from "./pins";

/** What writes a chip's program: its name for the tool, and what goes with its port where it has one. */
export interface Programmer {
  ref: string | null;
  tool: string;
  port: string | null;
  /** It can be told how fast to send its bits. */
  paced: boolean;
}

/** The usual sketch for a second board has a pace of its own, slow enough for a chip as sold, and knows no command for it. */
const UNPACED = "stk500v1";
/** Programmers that are reached over a port, with the baud that the usual sketch for a second board has. */
const PORTS: Record<string, string> = { stk500v1: " -b 19200", stk500v2: "" };

/** The programmer of a plan that is wired to a chip; the usual one where none is in the parts. */
export function programmerOf(c: Circuit, host: string): Programmer {
  const reset = c.netlist.instance(host)?.part.board?.programming?.reset;
  const joined = (ref: string) =>
    reset !== undefined && c.netlist.netOf(`${ref}.RST`) === c.netlist.netOf(`${host}.${reset}`);
  const inst = [...c.netlist.expanded.instances.values()].find(
    (i) => i.part.pins.some((p) => p.hook === "isp-reset") && joined(i.ref),
  );
  const entry = inst && c.project.parts.find((p) => p.ref === inst.ref);
  const tool = inst ? String(optionValues(inst.part, entry?.options ?? {}).tool ?? "usbasp") : "usbasp";
  return { ref: inst?.ref ?? null, tool, port: PORTS[tool] ?? null, paced: tool !== UNPACED };
}

const spaced = (signature: string) => signature.replace(/../g, "0x$& ").trim();

/** The section about the programmer's wires of a bare chip: what goes where, and what each fault makes the tool say. */
export function programmerPage(c: Circuit, host: string): string {
  const chip = c.netlist.instance(host)!.part;
  const p = chip.board?.programming;
  if (!p) return "";
  const { ref, tool, paced } = programmerOf(c, host);
  const supply = chip.pins.find((x) => x.role === "supply-in")?.label ?? "VCC";
  const place = (label: string) => {
    const at = findPin(chip, label)?.aliases?.find((a) => /^P\d+$/.test(a));
    return at ? `${label} (leg ${at.slice(1)})` : label;
  };
  const shared = [p.mosi, p.miso, p.sck].flatMap((label) =>
    c.netlist
      .netOf(`${host}.${label}`)
      .ends.filter((e) => e.ref !== host && e.ref !== ref)
      .map((e) => `${codeText(c.netlist.instance(e.ref)!.label)} (${e.ref}) at ${label}`),
  );
  const rows: [string, string][] = [
    [
      `MOSI, SCK, RST or GND broken, or two of them swapped`,
      "target does not answer: all of these say the same, measure all six",
    ],
    ["MISO broken", "target does not answer, or signature 0x00 0x00 0x00 or 0xff 0xff 0xff"],
    [
      "MISO and MOSI swapped",
      `target does not answer: MOSI goes to ${p.mosi}, MISO to ${p.miso}, by name and not crossed`,
    ],
    ["VCC missing", "target does not answer, or it answers now and then: the lines feed the chip weakly"],
    ["Chip turned round", "target does not answer and the chip gets hot: take the supply off at once"],
    ...(paced
      ? [["Bits too fast for a chip at 1 MHz", "target does not answer: a larger BITCLOCK"] as [string, string]]
      : []),
    ["Another chip in the socket", `a signature other than ${spaced(p.signature)}`],
    ["Something else drives a line", "the signature is right, then verification fails at the first byte"],
    ["Fuses ask for a crystal that is not there", "answered once, never again: lend it a clock at its crystal's pin"],
    [
      "The programmer's driver is missing, or no right to its port",
      "programmer not found, before anything is asked of the chip",
    ],
  ];
  return `
## The programmer

| programmer | ${chip.board!.chip} |
|---|---|
| MISO | ${place(p.miso)} |
| VCC | ${place(supply)} |
| SCK | ${place(p.sck)} |
| MOSI | ${place(p.mosi)} |
| RST | ${place(p.reset)} |
| GND | ${chip.pins
    .filter((x) => x.role === "ground")
    .map((x) => place(x.label))
    .join(" and ")} |

${
  ref
    ? `It is ${ref} of the plan.`
    : "None is in the parts of this plan: add the AVR programmer, and its wires are planned and checked with the others."
}${tool === "stk500v1" ? " A second board with the programmer's sketch: MISO is its pin 12, MOSI 11, SCK 13, RST 10, VCC its 5V." : ""} One supply only: either the programmer feeds the circuit, or the circuit has its own and the programmer's VCC jumper is off.
${
  shared.length
    ? `On its lines hang ${shared.join(", ")}: what drives a line needs 1 kOhm in between, a light more than 330 Ohm, and what is selected by a line has that line held high.\n`
    : ""
}
| what is wrong | what the tool says |
|---|---|
${rows.map(([what, says]) => `| ${what} | ${says} |`).join("\n")}
`;
}
