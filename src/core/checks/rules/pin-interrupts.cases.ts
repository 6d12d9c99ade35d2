import { catalogue } from "../../testing";
import { CABLE, make, part, USB, type Case, type Links } from "../cases/build";
import { ownPart } from "../cases/own";

const watched = ownPart("module/ultrasonic-3v3", "module/watched", (p) => ({
  pins: p.pins.map((x) => (x.label === "ECHO" ? { ...x, need: { kind: "interrupt" as const } } : x)),
}));

const EDGES = catalogue.get("board/samd21-compact")!.pins;

const lines = (line: string) =>
  EDGES.filter((p) => p.offers?.some((o) => o.kind === "interrupt" && o.line === line)).map((p) => p.label);

const [first, same] = lines("EXTINT2");
const other = lines("EXTINT3")[0];

const free = EDGES.filter(
  (p) => p.offers?.some((o) => o.kind === "digital") && ![first, same, other].includes(p.label) && !p.hazards?.length,
).map((p) => p.label);

const edges = (second: string | undefined) =>
  make(
    [{ ref: "B1", part: "board/samd21-compact" }, USB, part("M1", "module/watched"), part("M2", "module/watched")],
    [
      CABLE,
      ...["M1", "M2"].flatMap((m, i): Links => [
        [`${m}.VCC`, "B1.3V3"],
        [`${m}.GND`, "B1.GND"],
        [`${m}.TRIG`, `B1.${free[i]}`],
      ]),
      ["M1.ECHO", `B1.${first}`],
      ["M2.ECHO", `B1.${second}`],
    ],
    { customParts: [watched] },
  );

export const pinInterruptsCases: Case[] = [
  {
    rule: "pin.interrupts",
    severity: "fault",
    says: "two watched inputs on one edge line",
    bad: () => edges(same),
    near: () => edges(other),
  },
];
