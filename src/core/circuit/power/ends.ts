import type { End } from "../../project";

/** `REF.PIN` of an endpoint. */
export const endText = (e: End) => `${e.ref}.${e.pin}`;
