import Papa from "papaparse";
import type { OwnRole } from "./roles";

export interface PastedPin {
  label: string;
  role: OwnRole;
  /** True when nothing in the label or table told the role. */
  guessed: boolean;
  says: string;
  /** The pin of the part that this one came from, where it is known by that label there. */
  from?: string;
  supply?: string;
}
export type PinList = { ok: true; pins: PastedPin[] } | { ok: false; message: string };

/** Labels that say what they are. First match decides. */
const BY_LABEL: [RegExp, OwnRole][] = [
  [/^(GND|VSS|0V|AGND|DGND|PGND|GROUND|COM|MASSE|-)\d*$/i, "ground"],
  [/^(VOUT|3V3OUT|5VOUT|VO\+|OUT\+|VREG)$/i, "supply-out"],
  [
    /^(VCC|VDD|VIN|V\+|VBUS|VBAT|VS|VM|VMOT|AVDD|DVDD|AVCC|3V3?|3\.3V|5V|\+5V|\+3\.3V|12V|\+|PWR|POWER|VDDIO|VIO|VLED)\d*$/i,
    "supply-in",
  ],
  [/^(SDA|SDI\/SDA|SDA\/SDI)$/i, "i2c-sda"],
  [/^(SCL|SCK\/SCL|SCL\/SCK)$/i, "i2c-scl"],
  [/^(SCK|SCLK|CLK|SPI_?CLK)$/i, "spi-sck"],
  [/^(MOSI|SDI|COPI|SI)$/i, "spi-mosi"],
  [/^(MISO|SDO|CIPO|SO)$/i, "spi-miso"],
  [/^(CS|CSN|CSB|NSS|SS|SCS|\/CS|CE)$/i, "spi-cs"],
  [/^(TX|TXD|TXO|DOUT_?UART)$/i, "uart-tx"],
  [/^(RX|RXD|RXI)$/i, "uart-rx"],
  [/^(N\.?C\.?|NIC|DNC|NU)$/i, "unused"],
  [/^(AO|A0|AOUT|VOUTA|ANALOG|WIPER|VRX|VRY)$/i, "analog-out"],
  [/^(INT|INT\d|IRQ|DRDY|RDY|ALERT|ALRT|BUSY|DO|D0|OUT|DOUT|ECHO|STATE|READY|FLT|FAULT|SQW)$/i, "output"],
  [
    /^(EN|ENA|RST|RESET|RES|NRST|TRIG|IN\d?|DIN|DC|D\/C|A\d?|WAKE|XSHUT|SHDN|STBY|SLP|STEP|DIR|SEL|LATCH|LOAD|BL|BLK|LED)$/i,
    "input",
  ],
  [/^(PWM\d?|SIG|SERVO)$/i, "input-pwm"],
  [/^(DQ|DATA|IO|DAT|SIO)$/i, "both"],
];
/** Words in a type or function column that say what a pin is. */
const BY_WORDS: [RegExp, OwnRole][] = [
  [/\bnot (used|connected)|no connect|leave (open|floating)|\bn\.?c\.?\b/i, "unused"],
  [/\bopen[- ]drain|open[- ]collector/i, "open-drain"],
  [/\bsda\b|i2c data/i, "i2c-sda"],
  [/\bscl\b|i2c clock/i, "i2c-scl"],
  [/\bmosi\b|spi data in|serial data in/i, "spi-mosi"],
  [/\bmiso\b|spi data out|serial data out/i, "spi-miso"],
  [/\b(spi|serial) clock|\bsck\b/i, "spi-sck"],
  [/chip select|slave select/i, "spi-cs"],
  [/uart (tx|transmit)|transmit(ted)? data|\btxd\b/i, "uart-tx"],
  [/uart (rx|receive)|received? data|\brxd\b/i, "uart-rx"],
  [/\bground\b|\bgnd\b|\bmasse\b/i, "ground"],
  [/(power|supply|voltage) out/i, "supply-out"],
  [/\b(power|supply)\b|\bvdd\b|\bvcc\b/i, "supply-in"],
  [/\banalog(ue)?\b.*\bout|\bout\w*\b.*\banalog/i, "analog-out"],
  [/\banalog(ue)?\b.*\bin|\bin\w*\b.*\banalog/i, "analog-in"],
  [/\bpwm\b/i, "input-pwm"],
  [/\b(i\/o|bidirectional|in\/out|input\/output|both)\b/i, "both"],
  [/\b(input|in|i)\b/i, "input"],
  [/\b(output|out|o)\b/i, "output"],
  [/\b(passive|terminal)\b/i, "terminal"],
];
const MOST_PINS = 100;
const LABEL = /^[A-Za-z0-9+\-~][A-Za-z0-9+\-_.'/]{0,19}$/;

/** The role that a label, with what stands beside it, tells; null when nothing does. */
export function guessRole(label: string, beside = ""): OwnRole | null {
  const bare = label.replace(/^[/~!]|[#*]$/g, "");
  const byWord = BY_WORDS.find(([re]) => beside && re.test(beside))?.[1];
  const byLabel = BY_LABEL.find(([re]) => re.test(bare))?.[1];
  // A bus name in the label is surer than a loose word such as "input"; a word about direction surer than a guess.
  const sure = byLabel && /^(i2c|spi|uart|ground|supply|unused)/.test(byLabel);
  return (sure ? byLabel : (byWord ?? byLabel)) ?? null;
}

/** A label as it can be used in wire lists: no spaces, no signs that mean something else. */
export const tidyLabel = (text: string) =>
  text
    .trim()
    .replace(/\s+/g, "_")
    .replace(/[−–]/g, "-")
    .replace(/[^A-Za-z0-9+\-_.'/~]/g, "")
    .replace(/^[._'/]+/, "")
    .slice(0, 20);

function unique(labels: string[]): string[] {
  const seen = new Map<string, number>();
  return labels.map((l) => {
    const n = (seen.get(l) ?? 0) + 1;
    seen.set(l, n);
    return n === 1 ? l : `${l}.${n}`;
  });
}

const HEADING = /^(pin|no\.?|#|nr\.?|number|name|label|symbol|function|type|i\/o|description|dir(ection)?|signal)$/i;

/**
 * Reads pins as a person has them: `VCC, GND, SDA, SCL`, one a line, or a table pasted from a data sheet with pin number,
 * name, type and description in any order. Repeated labels get `.2`, `.3`; roles are guessed.
 */
export function readPins(text: string): PinList {
  if (text.length > 20_000)
    return { ok: false, message: "This is longer than a pin list can be; paste only the table." };
  const lines = text
    .replace(/\r\n?/g, "\n")
    .split("\n")
    .filter((l) => l.trim() && !/^[\s|:+-]+$/.test(l));
  if (!lines.length) return { ok: false, message: "Type the labels in printed order, such as VCC, GND, SDA, SCL." };
  const split = (l: string): string[] => {
    if (l.includes("|")) return l.replace(/^\s*\||\|\s*$/g, "").split("|");
    if (l.includes("\t")) return l.split("\t");
    if (/[;,]/.test(l)) return Papa.parse<string[]>(l, { delimiter: l.includes(";") ? ";" : "," }).data[0] ?? [];
    return l.split(/\s{2,}/);
  };
  let rows = lines.map((l) => split(l).map((c) => c.trim()));
  if (rows.length > 1 && rows[0]!.filter((c) => HEADING.test(c)).length >= Math.min(2, rows[0]!.length))
    rows = rows.slice(1);
  // A list on one line, or lines that are nothing but labels, are labels; anything else is a table.
  const table = rows.length > 1 && rows.every((r) => r.length > 1);
  const numbered = rows.every((r) => r.length === 1 && /^\d+[.):\s]\s*\S/.test(r[0]!));
  let entries: { label: string; beside: string; order: number }[];
  if (table) {
    const numeric = (i: number) => rows.filter((r) => /^\d{1,3}$/.test(r[i] ?? "")).length / rows.length;
    const width = Math.max(...rows.map((r) => r.length));
    const cols = Array.from({ length: width }, (_, i) => i);
    const noCol = cols.find((i) => numeric(i) > 0.8) ?? -1;
    const labelish = (i: number) =>
      i === noCol
        ? -1
        : rows.filter((r) => (r[i] ?? "").length <= 12 && /[A-Za-z+-]/.test(r[i] ?? "") && !/\s/.test(r[i] ?? ""))
            .length + (guessShare(rows, i) ? 2 * rows.length : 0);
    const nameCol = cols.reduce((best, i) => (labelish(i) > labelish(best) ? i : best), noCol === 0 ? 1 : 0);
    entries = rows.map((r, k) => ({
      label: tidyLabel(r[nameCol] || r[noCol] || ""),
      beside: r
        .filter((_, i) => i !== nameCol && i !== noCol)
        .join(" ")
        .trim(),
      order: noCol >= 0 ? Number(r[noCol]) || k + 1 : k + 1,
    }));
    entries = [...entries].sort((a, b) => a.order - b.order);
  } else {
    const labels = rows.flatMap((r) =>
      r.length === 1 && !numbered
        ? r[0]!.split(/\s+(?![^(]*\))/)
        : numbered
          ? [r[0]!.replace(/^\d+[.):\s]\s*/, "")]
          : r,
    );
    entries = labels.flatMap((l, k) => {
      const m = /^([^\s(]+)\s*(?:\((.*)\)|[-–:]\s+(.*)|\s+(.*))?$/.exec(l.trim());
      const label = tidyLabel(m?.[1] ?? l);
      return label ? [{ label, beside: m?.[2] ?? m?.[3] ?? m?.[4] ?? "", order: k + 1 }] : [];
    });
  }
  const bad = entries.find((e) => !LABEL.test(e.label));
  if (bad)
    return {
      ok: false,
      message: `"${bad.label || "an empty cell"}" can't be a pin label; labels are up to 20 letters, digits and + - _ . ' /`,
    };
  if (entries.length > MOST_PINS)
    return { ok: false, message: `${entries.length} pins are more than one part has; the most is ${MOST_PINS}.` };
  const labels = unique(entries.map((e) => e.label));
  return {
    ok: true,
    pins: entries.map((e, i) => {
      const role = guessRole(e.label, e.beside);
      return { label: labels[i]!, role: role ?? "terminal", guessed: role === null, says: e.beside.slice(0, 200) };
    }),
  };
}

/** Whether a column's cells look like pin labels that say what they are. */
const guessShare = (rows: string[][], i: number) =>
  rows.filter((r) => BY_LABEL.some(([re]) => re.test(r[i] ?? ""))).length > rows.length / 3;
