/** Lines of readings to a memory card: the file is LOG.CSV, each line ends as tables want it. */
import { givesOf } from "../rules/resolve";
import { codeOf } from "../rules/print";
import type { DriverPart } from "../types";
import { CARD_IN_C } from "./card-in-c";
import { CARD_LIB } from "./card-in-python";
import { columnsOf } from "./columns";

export { columnsOf } from "./columns";

/** The time of a clock part, hours first. */
const timeOf = (clock: DriverPart) =>
  ["hour", "minute", "second"].flatMap((n) => givesOf(clock).filter((q) => q.name === n));

const two = (code: string) => `if (${code} < 10) logText(line, "0");\n  logNumber(line, ${code}, 0);`;

/** What a sketch with logs stands on. */
export const logHelpers = (cards: readonly DriverPart[]): string[] => (cards.length ? [CARD_IN_C] : []);

/** A line of one card: from the readings as they are now. Tells on the console whether it is on the card. */
export function logInC(card: DriverPart, parts: readonly DriverPart[]): string {
  const { clock, readings, head } = columnsOf(parts);
  const at = clock
    ? timeOf(clock)
        .map((q) => two(codeOf(clock, "sketch")!.value!(clock, q)))
        .join('\n  logText(line, ":");\n  ')
    : "";
  const cells = readings.map(({ p, q }) => {
    const code = codeOf(p, "sketch")!;
    const fresh = code.fresh?.(p);
    const number = `logNumber(line, ${code.value!(p, q)}, ${q.digits});`;
    return `logText(line, ",");\n  ${fresh ? `if (${fresh}) ${number}` : number}`;
  });
  return `static Card ${card.id}_file = {&${card.id}_spi, false, false, 0, 0, false, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0};
static bool ${card.id}_open = false;
static const char ${card.id}_head[] PROGMEM = "${head}\\r\\n";
// A line at the end of LOG.CSV; the card is looked at anew after it was gone.
static void ${card.id}_log() {
  if (!${card.id}_fresh) ${card.id}_open = false;
  else if (!${card.id}_open) ${card.id}_open = cardMount(&${card.id}_file, ${card.id}_card == 2) && cardAppendHead(&${card.id}_file, ${card.id}_head);
  char line[160];
  line[0] = 0;
  logNumber(line, millis() / 1000, 0);${at ? `\n  logText(line, ",");\n  ${clock ? `if (${codeOf(clock, "sketch")!.fresh!(clock)}) {\n  ${at}\n  }` : ""}` : ""}
  ${cells.join("\n  ")}
  strcpy(line + strlen(line), "\\r\\n");
  if (${card.id}_open) ${card.id}_open = cardAppend(&${card.id}_file, line);
  Serial.print(${card.id}_open ? F("log ") : F("not on the card: "));
  Serial.print(line);
}`;
}

/** The same in Python. */
export const LOG_LIB = { path: "lib/card.py", text: CARD_LIB };
export function logInPython(card: DriverPart, parts: readonly DriverPart[]): string {
  const { clock, readings, head } = columnsOf(parts);
  const code = (p: DriverPart) => codeOf(p, "micropython")!;
  const cells = [
    "str(time.ticks_ms() // 1000)",
    ...(clock
      ? [
          `"%02d:%02d:%02d" % (${timeOf(clock)
            .map((q) => code(clock).value!(clock, q))
            .join(", ")}) if ${code(clock).fresh!(clock)} else ""`,
        ]
      : []),
    ...readings.map(({ p, q }) => {
      const fresh = code(p).fresh?.(p);
      const text = `fixed(${code(p).value!(p, q)}, ${q.digits}, ${q.digits})`;
      return fresh ? `${text} if ${fresh} else ""` : text;
    }),
  ];
  return `${card.id}_file = Log(${card.id}, ${card.id}_spi, "${head}")


def ${card.id}_log():
    """A line at the end of LOG.CSV; the card is looked at anew after it was gone."""
    line = ",".join((${cells.join(", ")},))
    print(("log " if ${card.id}_file.write(line) else "not on the card: ") + line)
`;
}
