import type { BoardTrial } from "@/core/plan/advice";

export type Trial = Omit<BoardTrial, "project">;

export const PRICE: Record<Trial["price"], string> = { low: "low price", medium: "middle price", high: "high price" };

const USB: Record<Trial["usb"], string> = {
  native: "native USB",
  bridge: "USB by a serial bridge",
  none: "no USB for programs",
};
export const usbWords = (usb: Trial["usb"]) => USB[usb];
