import type { Part, Pin } from "./schema";

/** A set of parts with look-up by id. Own parts of a project are laid over the shipped ones. */
export interface Catalogue {
  /** The ids that are listed, in catalogue order. Families have members that are found but not listed. */
  ids: readonly string[];
  readonly parts: readonly Part[];
  get(id: string): Part | undefined;
}

/** A member of a family of connectors: `connector/header-7` from `connector/header-n`, with pins 1 to 7. */
function member(id: string, find: (id: string) => Part | undefined): Part | undefined {
  const m = /^(.+)-(\d{1,2})$/.exec(id);
  const family = m ? find(`${m[1]}-n`) : undefined;
  const count = Number(m?.[2]);
  if (!family?.repeat || count < 1 || count > family.repeat.most) return undefined;
  const { repeat: _family, ...rest } = family;
  const pitch = family.body.header?.pitch_mm ?? 2.54;
  return {
    ...rest,
    id,
    name: `${family.name}, ${count} pin${count === 1 ? "" : "s"}`,
    pins: Array.from({ length: count }, (_, i) => ({ ...family.pins[0]!, label: String(i + 1) })),
    body: {
      ...family.body,
      mm: [Number((count * pitch).toFixed(2)), family.body.mm[1]],
      ...(family.body.header && { header: { ...family.body.header, pins: count } }),
    },
  };
}

/** Whether an id is a shipped part's: a part of one's own under it would be taken for that one, with other limits. */
export const isShipped = (c: Catalogue, id: string): boolean => c.get(id) !== undefined || c.ids.includes(id);

/** What is said where a part of one's own has the id of a shipped one. */
export const shippedId = (id: string) =>
  `"${id}" is the id of a part that ships with the app; a part of your own needs another one, such as "${id.slice(0, 50)}-own"`;

/**
 * A catalogue over a look-up function. Families (`repeat`) are opened here: their members are made on first use, the
 * usual sizes are listed in place of the family itself.
 */
export function catalogueOver(
  listed: readonly string[],
  find: (id: string) => Part | undefined,
  families: readonly string[],
): Catalogue {
  const members = new Map<string, Part | undefined>();
  const get = (id: string): Part | undefined => {
    if (members.has(id)) return members.get(id);
    const own = families.includes(id) ? undefined : find(id);
    if (own) return own;
    const made = member(id, find);
    if (made) members.set(id, made);
    return made;
  };
  const ids = listed.flatMap((id) =>
    families.includes(id) ? (find(id)?.repeat?.listed ?? []).map((n) => id.replace(/-n$/, `-${n}`)) : [id],
  );
  let parts: Part[] | undefined;
  return {
    ids,
    get parts() {
      return (parts ??= ids.flatMap((id) => get(id) ?? []));
    },
    get,
  };
}

/** Builds a catalogue from definitions at hand. A later part with the same id replaces an earlier one. */
export function makeCatalogue(parts: readonly Part[]): Catalogue {
  const byId = new Map(parts.map((p) => [p.id, p]));
  return catalogueOver(
    [...byId.keys()],
    (id) => byId.get(id),
    [...byId.values()].filter((p) => p.repeat).map((p) => p.id),
  );
}

const byLabel = new WeakMap<readonly Pin[], Map<string, Pin>>();

/** The pin with this printed label or alias; a label goes before another pin's alias. Boards that print bare numbers take `0` and `D0`. */
export function findPin(part: Part, label: string): Pin | undefined {
  let map = byLabel.get(part.pins);
  if (!map) {
    map = new Map();
    for (const p of part.pins) for (const a of p.aliases ?? []) if (!map.has(a)) map.set(a, p);
    for (const p of [...part.pins].reverse()) map.set(p.label, p);
    byLabel.set(part.pins, map);
  }
  return map.get(label);
}
