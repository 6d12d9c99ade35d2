import type { Pattern } from "../types";
import { button, FORTY, lamp, on, piece, pressed, USB } from "./pieces";

/** A press goes over the line as A, letting go as B; a byte at 9600 baud takes a little more than a millisecond. */
const PYTHON = {
  globals: "line_told = [False]\n",
  loop: [
    "    # A press is told to the other hut as A, letting go as B.",
    "    if m1_line.fresh and call_state[2] != line_told[0]:",
    "        line_told[0] = call_state[2]",
    "        m1_line_de.value(1)",
    '        m1_line_port.put(b"A" if line_told[0] else b"B")',
    "        time.sleep_ms(2)",
    "        m1_line_de.value(0)",
    "",
  ].join("\n"),
};
const CPP = {
  globals: "static bool line_told = false;\n",
  loop: [
    "  // A press is told to the other hut as A, letting go as B.",
    "  if (m1_line_fresh && call_pressed != line_told) {",
    "    line_told = call_pressed;",
    "    digitalWrite(PIN_LINE_DE, HIGH);",
    "    Serial1.write(line_told ? 'A' : 'B');",
    "    Serial1.flush();",
    "    digitalWrite(PIN_LINE_DE, LOW);",
    "  }",
    "",
  ].join("\n"),
};

export const twoBoardsTalking: Pattern = {
  id: "two-boards-talking",
  title: "Signal line between two huts",
  goal: "A press in one hut lights the lamp in the other, over two wires of many metres.",
  learns: "A serial line with a driver at each end: one talks, the others listen.",
  boards: [FORTY],
  parts: [
    USB,
    piece("B2", FORTY, "Far controller"),
    piece("S2", "supply/usb-port", "Far USB"),
    piece("M1", "module/max3485", "Line", { host: "B1" }),
    piece("M2", "module/max3485", "Far line", { host: "B2" }),
    button("SW1", "Call", { host: "B1" }),
    lamp("LED1", "Answer", "red", { host: "B2" }),
  ],
  links: [
    ["M1.A", "M2.A"],
    ["M1.B", "M2.B"],
  ],
  rules: [{ when: { ref: "M2", out: "letter", is: 65 }, do: on("LED1") }],
  code: {
    micropython: { "B1.globals": PYTHON.globals, "B1.loop": PYTHON.loop },
    sketch: { "B1.globals": CPP.globals, "B1.loop": CPP.loop },
  },
  onward: [
    {
      id: "own",
      says: "A lamp beside the button that tells that the call went out.",
      parts: [lamp("LED2", "Called", "green", { host: "B1" })],
      rules: [{ when: pressed("SW1"), do: on("LED2") }],
    },
    {
      id: "sound",
      says: "A buzzer in the far hut.",
      parts: [piece("M3", "module/buzzer-active", "Far buzzer", { host: "B2" })],
      rules: [{ when: { ref: "M2", out: "letter", is: 65 }, do: on("M3") }],
    },
    {
      id: "back",
      says: "A button in the far hut that lights a lamp there.",
      parts: [button("SW2", "Heard", { host: "B2" }), lamp("LED2", "Thanks", "yellow", { host: "B2" })],
      rules: [{ when: pressed("SW2"), do: on("LED2") }],
    },
  ],
};
