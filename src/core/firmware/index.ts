/** Firmware from the plan: pins files, bring-up and starter programs, one registry of targets. */
import { micropython } from "./micropython";
import { sketch } from "./sketch";
import type { FirmwareTarget } from "./types";

export * from "./types";
export { pinConstants, identifier, codeText } from "./pins";

export const TARGETS: readonly FirmwareTarget[] = [sketch, micropython];
export const targetById = (id: string) => TARGETS.find((t) => t.id === id);
