import type { Part } from "./schema";

/** A board's flash in words, and what of it an upload can use where that is less. */
export const flashWords = (b: NonNullable<Part["board"]>): string =>
  `${b.flash_kB} kB flash${b.upload_kB === undefined || b.upload_kB === b.flash_kB ? "" : ` (${b.upload_kB} kB for uploads)`}`;
