import { randomBytes } from "node:crypto";

/** A short random id that is safe in an address. */
export const newId = () => randomBytes(9).toString("base64url");
