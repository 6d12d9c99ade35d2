import {
  ADAPTER5,
  AVR,
  changed,
  CHARGER,
  ESP,
  part,
  planned,
  RP,
  USB,
  wire,
  type Case,
  type Links,
} from "../cases/build";

const joined = (parts: Parameters<typeof planned>[0], wires: Links) =>
  changed(planned(parts), ...wires.map(([a, b]) => wire(a, b)));

const RS = "module/max3485";
/** Two line drivers of one board, planned, with their pairs wired so. */
const rs = (...wires: Links) => joined([RP, USB, part("M1", RS), part("M2", RS)], wires);
/** Two CAN controllers with transceivers, of one board. */
const can = (...wires: Links) =>
  joined([AVR, ADAPTER5, part("M1", "module/mcp2515"), part("M2", "module/mcp2515")], wires);

export const pairCrossedCases: Case[] = [
  {
    rule: "net.pair-crossed",
    severity: "risk",
    says: "A to B and B to A between two line drivers",
    bad: () => rs(["M1.A", "M2.B"], ["M1.B", "M2.A"]),
    near: () => rs(["M1.A", "M2.A"], ["M1.B", "M2.B"]),
  },
  {
    rule: "net.pair-crossed",
    severity: "fault",
    says: "H to L of two CAN transceivers",
    bad: () => can(["M1.CANH", "M2.CANL"], ["M1.CANL", "M2.CANH"]),
    near: () => can(["M1.CANH", "M2.CANH"], ["M1.CANL", "M2.CANL"]),
  },
  {
    rule: "net.pair-crossed",
    severity: "fault",
    says: "both lines of one pair joined",
    bad: () => rs(["M1.A", "M2.A"], ["M1.B", "M2.A"]),
    near: () => rs(["M1.A", "M2.A"], ["M1.B", "M2.B"]),
  },
  {
    rule: "net.pair-crossed",
    severity: "fault",
    says: "a CAN line on an RS-485 line",
    bad: () =>
      joined(
        [ESP, CHARGER, part("M1", RS), part("M2", "module/sn65hvd230")],
        [
          ["M1.A", "M2.CANH"],
          ["M1.B", "M2.CANL"],
        ],
      ),
    near: () => rs(["M1.A", "M2.A"], ["M1.B", "M2.B"]),
  },
];
