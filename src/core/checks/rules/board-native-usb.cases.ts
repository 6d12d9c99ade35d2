import { CABLE, make, USB, type Case } from "../cases/build";

const keyboard = (board: string) => make([{ ref: "B1", part: board, options: { usbRole: "keyboard" } }, USB], [CABLE]);

export const boardNativeUsbCases: Case[] = [
  {
    rule: "board.native-usb",
    severity: "fault",
    says: "a keyboard on a board with a serial bridge",
    bad: () => keyboard("board/atmega328p-long"),
    near: () => keyboard("board/atmega32u4-long"),
  },
];
