import { formatFarad, formatOhm, type Expr } from "../../quantity";
import type { Part, PartOption } from "../catalogue";
import { listOf, read, type Build } from "./build";
import { tidyLabel } from "./pins";
import { OWN_COMPANIONS, type OwnCompanion, type OwnFeed } from "./roles";
import type { DraftChannel, DraftCompanion, DraftFeed, DraftGate, DraftPin, DraftStrap } from "./schema";
import { readAddress, readFarads, readMilliamps, readOhms, readRange, readVolts } from "./values";

type Converter = Part["converters"][number];
type Companion = Part["companions"][number];
type Channel = Part["channels"][number];
type Gate = Part["gates"][number];

const plain = (x: Expr | undefined, how: (v: number) => string) =>
  x === undefined ? "" : typeof x === "number" ? how(x) : String(x);
const spread = (s: { min: Expr; typ: Expr; max: Expr } | undefined) =>
  s && [s.min, s.typ, s.max].every((v) => typeof v === "number") ? `min ${s.min} typ ${s.typ} max ${s.max}` : "";

/** The lists of a draft that a part's own ones give. */
export const extrasFrom = (part: Part) => ({
  feeds: part.converters.map((c, from): DraftFeed => ({
    source: c.from,
    to: c.to,
    how: c.kind,
    V: spread(c.V ?? c.drop_V),
    dropout: c.dropout_V === undefined ? "" : `${c.dropout_V} V`,
    limit: `${c.limit_mA} mA`,
    from,
  })),
  companions: part.companions.map((c, from): DraftCompanion => {
    const known = c.key in OWN_COMPANIONS && c.compute === "fixed" && !c.also?.length;
    const key: OwnCompanion = known ? (c.key as OwnCompanion) : "kept";
    return {
      key,
      pin: c.pin,
      to: c.to ?? "",
      value: c.F !== undefined ? plain(c.F, formatFarad) : plain(c.ohm, formatOhm),
      required: c.needed === "required",
      because: c.because,
      from,
    };
  }),
  channels: part.channels.map((c, from): DraftChannel => ({
    in: c.in,
    out: c.out,
    both: c.both ?? false,
    enable: c.enable ?? "",
    ohm: plain(c.ohm, formatOhm),
    from,
  })),
  gates: part.gates.map((g, from): DraftGate => ({ pin: g.pin, open: g.open, says: g.says, from })),
});

/** Notes a pin that a row names and that the part does not have. */
function pinIn(b: Build, path: string, label: string, labels: ReadonlySet<string>, what: string): string | null {
  const tidy = tidyLabel(label);
  if (tidy && labels.has(tidy)) return tidy;
  b.say(path, tidy ? `there is no pin "${tidy}": ${what}` : `which pin? ${what}`);
  return null;
}

/** Regulators, diodes and fuses between the supplies of the part. */
export function buildFeeds(b: Build, supplies: Part["supplies"]): Converter[] {
  const wants: Record<OwnFeed, string> = {
    linear: "what it gives, like 3.3 V ±2%",
    switching: "what it gives, like 5 V ±3%",
    diode: "what it drops, like 0.2 to 0.5 V",
    fuse: "what it drops, like 0 to 0.1 V",
    wire: "what it drops, like 0 to 0.05 V",
  };
  const list = listOf(b.draft.feeds, b.original?.feeds, b.draft.base?.converters, (row, old, i): Converter | null => {
    const path = `feeds/${i}`;
    for (const key of [row.source, row.to])
      if (!Object.hasOwn(supplies, key)) {
        b.say(path, key ? `there is no supply "${key}"` : "from which supply to which?");
        return null;
      }
    if (row.source === row.to) {
      b.say(path, "a supply can't be made from itself");
      return null;
    }
    const V = read(b, `${path}/V`, row.V, readRange);
    const limit = read(b, `${path}/limit`, row.limit, readMilliamps);
    const dropout = read(b, `${path}/dropout`, row.dropout, readVolts);
    if (!V && !row.V.trim()) b.say(`${path}/V`, `${wants[row.how]} is missing`);
    if (limit === undefined && !row.limit.trim()) b.say(`${path}/limit`, "the most current through it is missing");
    if (!V || limit === undefined) return null;
    const drops = row.how === "diode" || row.how === "fuse" || row.how === "wire";
    const heat = old?.kind === row.how ? { efficiency: old.efficiency, theta_C_per_W: old.theta_C_per_W } : {};
    return {
      from: row.source,
      to: row.to,
      kind: row.how,
      ...(drops ? { drop_V: V } : { V }),
      ...(typeof dropout === "number" && row.how === "linear" && { dropout_V: dropout }),
      ...(row.how === "switching" && { efficiency: heat.efficiency ?? 0.8 }),
      ...(heat.theta_C_per_W !== undefined && { theta_C_per_W: heat.theta_C_per_W }),
      limit_mA: limit,
      says: old?.says ?? `${row.how === "linear" ? "regulator" : row.how} on the board`,
    };
  });
  return list.filter((c) => Object.hasOwn(supplies, c.from) && Object.hasOwn(supplies, c.to));
}

/** Parts that belong beside the part's pins. */
export function buildCompanions(b: Build, labels: ReadonlySet<string>): Companion[] {
  const list = listOf(
    b.draft.companions,
    b.original?.companions,
    b.draft.base?.companions,
    (row, old, i): Companion | null => {
      const path = `companions/${i}`;
      if (row.key === "kept") return old ? { ...old, needed: row.required ? "required" : "recommended" } : null;
      const kind = OWN_COMPANIONS[row.key];
      const pin = pinIn(b, path, row.pin, labels, "what is put there needs one");
      const across = kind.place === "across";
      const to = across ? pinIn(b, path, row.to, labels, "it stands between two pins") : null;
      const value = read(b, `${path}/value`, row.value, kind.unit === "F" ? readFarads : readOhms);
      if (value === undefined && !row.value.trim()) b.say(`${path}/value`, "its value is missing");
      if (!pin || (across && !to) || value === undefined) return null;
      return {
        key: row.key,
        place: kind.place,
        pin,
        ...(to && { to }),
        part: kind.part,
        compute: "fixed" as const,
        ...(kind.unit === "F" ? { F: value } : { ohm: value }),
        needed: row.required ? ("required" as const) : ("recommended" as const),
        because: row.because.trim().slice(0, 240) || "so its data sheet asks",
      };
    },
  );
  return list.filter((c) => [c.pin, c.to ?? c.pin, ...(c.also ?? [])].every((l) => labels.has(l)));
}

/** Paths through the part: buffers, shifters, switches. */
export function buildChannels(b: Build, labels: ReadonlySet<string>): Channel[] {
  const list = listOf(b.draft.channels, b.original?.channels, b.draft.base?.channels, (row, old, i): Channel | null => {
    const path = `channels/${i}`;
    const from = pinIn(b, path, row.in, labels, "a path goes from one pin to another");
    const to = pinIn(b, path, row.out, labels, "a path goes from one pin to another");
    const enable = row.enable.trim() ? pinIn(b, path, row.enable, labels, "which one opens the path?") : null;
    const kept = old && plain(old.ohm, formatOhm) === row.ohm ? old.ohm : undefined;
    const ohm = kept ?? read(b, `${path}/ohm`, row.ohm, readOhms);
    if (!from || !to || (row.enable.trim() && !enable)) return null;
    return {
      in: from,
      out: to,
      ...(row.both && { both: true }),
      ...(enable && { enable }),
      ...(ohm !== undefined && { ohm }),
    };
  });
  return list.filter((c) => [c.in, c.out, c.enable ?? c.in].every((l) => labels.has(l)));
}

/** Enables, sleeps and resets: at which level the part works. */
export function buildGates(b: Build, labels: ReadonlySet<string>): Gate[] {
  const list = listOf(b.draft.gates, b.original?.gates, b.draft.base?.gates, (row, old, i): Gate | null => {
    const pin = pinIn(b, `gates/${i}`, row.pin, labels, "an enable or reset is one");
    return pin ? { ...old, pin, open: row.open, says: row.says.trim().slice(0, 80) || "works" } : null;
  });
  return list.filter((g) => [g.pin, ...(g.opens ?? [])].every((l) => labels.has(l)));
}

const STRAPPED = { ground: "ground", supply: "own-supply", open: null } as const;
type Choice = Extract<PartOption, { kind: "choice" }>;
type Patch = Choice["choices"][number]["patch"];

/** What choosing an address changes: the address itself, and where each strap goes. */
function patchOf(pins: Part["pins"], bus: number, value: string, list: DraftStrap[]): Patch {
  const out: Patch = [{ op: "add", path: `/groups/${bus}/address`, value }];
  for (const row of list) {
    const at = pins.findIndex((p) => p.label === tidyLabel(row.pin));
    const to = STRAPPED[row.to];
    if (to) out.push({ op: "add", path: `/pins/${at}/hook`, value: to });
    else if (pins[at]!.hook) out.push({ op: "remove", path: `/pins/${at}/hook` });
  }
  return out;
}

/**
 * The addresses that straps choose between, as an option: each row is a pin and where it goes for that address; the first
 * address is the one as sold.
 */
export function buildStraps(b: Build, pins: Part["pins"], groups: Part["groups"]): Choice[] {
  const rows = b.draft.straps;
  if (!rows.length) return [];
  const bus = groups.findIndex((g) => g.kind === "i2c");
  if (bus < 0) b.say("straps", "addresses belong to a part on I2C: no pins are SDA and SCL");
  if (b.draft.base?.options.some((o) => o.key === "address"))
    b.say("straps", "the part that this one came from has addresses to choose from already");
  const by = new Map<string, DraftStrap[]>();
  rows.forEach((row, i) => {
    const address = read(b, `straps/${i}`, row.address, readAddress);
    if (!row.address.trim()) b.say(`straps/${i}`, "which address is it then?");
    const at = pins.findIndex((p) => p.label === tidyLabel(row.pin));
    if (at < 0) b.say(`straps/${i}`, `there is no pin "${tidyLabel(row.pin)}"`);
    else if (pins[at]!.need)
      b.say(`straps/${i}`, `${pins[at]!.label} is a signal to the board; give it the role "strap"`);
    else if (address) by.set(address, [...(by.get(address) ?? []), row]);
  });
  if (bus < 0 || by.size === 0) return [];
  return [
    {
      kind: "choice",
      key: "address",
      label: "Address",
      default: [...by.keys()][0]!,
      choices: [...by].map(([value, list]) => ({
        value,
        label:
          `${value}: ${list.map((r) => `${tidyLabel(r.pin)} ${r.to === "open" ? "open" : `to ${r.to}`}`).join(", ")}`.slice(
            0,
            80,
          ),
        patch: patchOf(pins, bus, value, list),
      })),
    },
  ];
}

/** What a pin's row says of it beyond its role: where it is tied, that it must not float, what holds it. */
export function withPinExtras(b: Build, path: string, pin: Part["pins"][number], row: DraftPin): Part["pins"][number] {
  const { hook, hookPin, mustNotFloat: _m, restsAt: _r, ...bare } = pin;
  const tiePin = tidyLabel(row.tiePin);
  if (row.tie === "own-pin" && !tiePin) b.say(path, "to which of its pins?");
  const tied =
    row.tie === "kept"
      ? { ...(hook && { hook }), ...(hookPin && { hookPin }) }
      : row.tie === ""
        ? {}
        : row.tie === "own-pin"
          ? tiePin
            ? { hook: row.tie, hookPin: tiePin }
            : {}
          : { hook: row.tie };
  return {
    ...bare,
    ...tied,
    ...(row.floats && { mustNotFloat: true }),
    ...(row.rests && { restsAt: row.rests }),
  };
}
