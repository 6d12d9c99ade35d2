import type { PartKind } from "./schema";

/** What a part id stands for, by its first word: `module/bme280` is a module. */
export const partKind = (id: string) => id.split("/")[0] as PartKind;
