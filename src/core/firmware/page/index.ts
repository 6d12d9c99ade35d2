/** The readings on the local network, by boards with a radio: a page, and the same as JSON. In MicroPython. */
import type { Circuit } from "../../circuit";
import type { DriverPart, FirmwareFile } from "../types";
import { PAGE_LIB } from "./library";
import { ascii, pageRows } from "./rows";

/** How often it looks whether somebody asks, ms. */
export const PAGE_LOOK_MS = 100;

/** Whether a board is to be on the local network: it has a radio for that, and the person wants it. */
export function isOnNetwork(c: Circuit, host: string): boolean {
  const board = c.netlist.instance(host)!.part.board!;
  const wants = String(c.project.parts.find((p) => p.ref === host)?.options?.radio ?? "false") === "true";
  return wants && board.radio.includes("wifi");
}

/** Files that go with it; the network's name and password are a file of the person's own, which is never written. */
export const PAGE_FILES: readonly FirmwareFile[] = [
  { path: "lib/page.py", text: PAGE_LIB },
  {
    path: "wlan.example.py",
    text: `# The local network. Copy this file to wlan.py on the board and fill it in there: it is no part of the plan, and is never written over.
NAME = ""
PASSWORD = ""
`,
  },
];

const quoted = (text: string) => JSON.stringify(ascii(text));

/** What the page shows, as a function of the program, and the page itself. */
export function pageInPython(title: string, parts: readonly DriverPart[]): string {
  const rows = pageRows(parts, "micropython").map(({ word, unit, value, digits, shown, fresh }) => {
    const text = `fixed(${value}, ${digits}, ${shown})`;
    return `        (${quoted(word)}, ${fresh ? `${text} if ${fresh} else None` : text}, ${quoted(unit)}),`;
  });
  return `page = Page(${quoted(title)})


def page_readings():
    return [
${rows.join("\n")}
    ]
`;
}
