import type { Level } from "../../parts/catalogue";

/** What a pin's clamp stands for a while where the data says nothing, mA: the usual rating of logic inputs. */
export const INJECTION_MA = 20;
/** Forward voltage of the clamp through which a signal feeds a dead part. */
export const CLAMP_V = 0.6;
/** A clamp to its own supply is what lets a signal into a part that is off; a tolerant input has none. */
export const clampsToSupply = (level: Level | undefined) => typeof level?.absMax === "string" && /V/.test(level.absMax);
