import { shippedParts } from "../../../../catalogue";
import { catalogueOver, type Catalogue } from "./catalogue";
import type { Part } from "./schema";
import { validatePart } from "./validate";

let shipped: Catalogue | undefined;

/**
 * The catalogue that ships with the app. Each definition is validated on first use, so that a short job pays only for
 * the parts that it touches. A bad file is a bug and throws with its path.
 */
export function shippedCatalogue(): Catalogue {
  if (shipped) return shipped;
  const raw = new Map(shippedParts.map((data) => [(data as { id: string }).id, data]));
  const ready = new Map<string, Part>();
  const find = (id: string): Part | undefined => {
    const known = ready.get(id);
    const data = raw.get(id);
    if (known || !data) return known;
    const result = validatePart(data);
    if (!result.ok) throw new Error(`${id}: ${result.problems.map((p) => `${p.path}: ${p.message}`).join("; ")}`);
    ready.set(id, result.part);
    return result.part;
  };
  const families = [...raw].filter(([, d]) => (d as { repeat?: object }).repeat).map(([id]) => id);
  return (shipped = catalogueOver([...raw.keys()], find, families));
}
