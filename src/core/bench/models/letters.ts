import { FONT_5X7 } from "../../firmware/drivers/font5x7";

/** A letter by the dots of its five columns, the lowest bit on top, in hexadecimal digits. */
export const LETTERS = new Map(
  FONT_5X7.split(" ").map((columns, i) => [columns, String.fromCharCode(32 + i)] as const),
);
/** What bring-up writes into the rows below the first, of 21 letters. */
export const BELOW = [2, 3, 4, 5, 6, 7, 8].map((n) => `${n} abcdefghijklmnopqrs`);
/** What a row of letters is told: numbers of all lengths, both signs, with zeros inside. */
export const NUMBERS = [0, 7, -7, 12, -42, 12_345_678, -9_999_999, 99_999_999, 10, -100, 8056];
