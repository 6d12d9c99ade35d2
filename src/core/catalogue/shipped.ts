import { shippedParts } from "../../../catalogue";
import { makeCatalogue, type Catalogue } from "./catalogue";
import type { Part } from "./schema";
import { validatePart } from "./validate";

let shipped: Catalogue | undefined;

/** The catalogue that ships with the app, validated on first use. A bad file is a bug and throws with its path. */
export function shippedCatalogue(): Catalogue {
  shipped ??= makeCatalogue(
    shippedParts.map((data): Part => {
      const result = validatePart(data);
      if (result.ok) return result.part;
      const id = (data as { id?: string }).id ?? "a part without id";
      throw new Error(`${id}: ${result.problems.map((p) => `${p.path}: ${p.message}`).join("; ")}`);
    }),
  );
  return shipped;
}
