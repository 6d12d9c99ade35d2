import { elementEnds, validatePart, valueAt, type Level, type Need, type Part, type Pin } from "../catalogue";
import { read, type Build, type DraftProblem } from "./build";
import {
  buildChannels,
  buildCompanions,
  buildFeeds,
  buildGates,
  buildStraps,
  extrasFrom,
  withPinExtras,
} from "./extras";
import { buildLayout, layoutFrom, type Layout } from "./layout";
import { tidyLabel } from "./pins";
import { OWN_TIES, type OwnRole, type OwnTie } from "./roles";
import { DraftSupplySchema, OwnDraftSchema, type DraftPin, type DraftSupply, type OwnDraft } from "./schema";
import { readAddress, readHertz, readMilliamps, readOhms, readRange, readVolts } from "./values";

export type BuildResult = { part: Part | null; problems: DraftProblem[] };

export const emptySupply = (key = "main"): DraftSupply => DraftSupplySchema.parse({ key });
/** A blank sheet with one supply. */
export const emptyDraft = (): OwnDraft => OwnDraftSchema.parse({ supplies: [emptySupply()] });

const slug = (text: string) =>
  text
    .normalize("NFKD")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "")
    .slice(0, 32);

const SIGNAL: Partial<Record<OwnRole, Pick<Pin, "io"> & { need: Need; set: "digital" | "open" | "analog" }>> = {
  input: { io: "in", need: { kind: "digital-out" }, set: "digital" },
  "input-pwm": { io: "in", need: { kind: "pwm" }, set: "digital" },
  output: { io: "out", need: { kind: "digital-in" }, set: "digital" },
  "open-drain": { io: "open-drain", need: { kind: "digital-in" }, set: "open" },
  both: { io: "bidir", need: { kind: "digital-io" }, set: "digital" },
  "open-both": { io: "open-drain", need: { kind: "digital-io" }, set: "open" },
  "analog-out": { io: "analog-out", need: { kind: "adc" }, set: "analog" },
  "analog-in": { io: "analog-in", need: { kind: "dac" }, set: "analog" },
  "i2c-sda": { io: "open-drain", need: { kind: "i2c", role: "sda" }, set: "open" },
  "i2c-scl": { io: "in", need: { kind: "i2c", role: "scl" }, set: "open" },
  "spi-sck": { io: "in", need: { kind: "spi", role: "sck" }, set: "digital" },
  "spi-mosi": { io: "in", need: { kind: "spi", role: "mosi" }, set: "digital" },
  "spi-miso": { io: "out", need: { kind: "spi", role: "miso" }, set: "digital" },
  "spi-cs": { io: "in", need: { kind: "digital-out" }, set: "digital" },
  "uart-tx": { io: "out", need: { kind: "uart", role: "rx" }, set: "digital" },
  "uart-rx": { io: "in", need: { kind: "uart", role: "tx" }, set: "digital" },
};

/** The plain role that a catalogue pin has, or `kept` when the editor has no word for it. */
export function roleOf(part: Part, pin: Pin): OwnRole {
  if (pin.role === "supply-in" || pin.role === "supply-out") return pin.role;
  if (pin.role === "ground") return "ground";
  if (pin.role === "nc") return "unused";
  if (pin.role === "passive" && !pin.need && !pin.hook) return "terminal";
  if (pin.role !== "signal" || pin.offers?.length) return "kept";
  if (pin.io === "in" && !pin.need) return "strap";
  const cs = part.groups.some((g) => g.kind === "spi" && g.pins.cs === pin.label);
  const found = (Object.entries(SIGNAL) as [OwnRole, (typeof SIGNAL)[OwnRole]][]).find(
    ([, s]) => s!.io === pin.io && s!.need?.kind === pin.need?.kind && s!.need?.role === pin.need?.role,
  )?.[0];
  return cs && found === "input" ? "spi-cs" : (found ?? "kept");
}

const exprText = (x: number | string | undefined) =>
  x === undefined ? "" : String(x).replace(/(?<![A-Za-z])V(?![A-Za-z])/g, "VDD");

/** Where a pin is tied, in the editor's words. */
const tieOf = (p: Pin): OwnTie => (p.hook === undefined ? "" : p.hook in OWN_TIES ? (p.hook as OwnTie) : "kept");

/** A draft from a part: to change an own part, or to make one's own from a catalogue part. */
export function draftFrom(part: Part, copy: boolean): OwnDraft {
  const kind = part.id.split("/")[0]!;
  const address = part.groups.find((g) => g.kind === "i2c")?.address ?? "";
  const bus = part.groups.find((g) => g.max_Hz);
  return OwnDraftSchema.parse({
    id: copy ? "" : part.id,
    kind,
    name: copy ? `${part.name} (mine)`.slice(0, 80) : part.name,
    does: part.does,
    sourceTitle: part.sources[0]!.title,
    sourceWhere: part.sources[0]!.where,
    certainty: part.certainty,
    pins: part.pins.map((p) => ({
      label: p.label,
      role: roleOf(part, p),
      says: p.says ?? "",
      supply: p.supply ?? (p.level ? part.levels[p.level]!.supply : (Object.keys(part.supplies)[0] ?? "main")),
      optional: p.optional ?? p.need?.optional ?? false,
      tie: tieOf(p),
      tiePin: p.hookPin ?? "",
      floats: p.mustNotFloat ?? false,
      rests: p.restsAt ?? "",
      from: p.label,
    })),
    supplies: Object.entries(part.supplies).map(([key, s]) => {
      const l = Object.values(part.levels).find(
        (x) => x.supply === key && x.output !== "analog" && x.input !== "analog",
      );
      return {
        key,
        V: [s.V.min, s.V.typ, s.V.max].every((x) => typeof x === "number")
          ? `min ${s.V.min} typ ${s.V.typ} max ${s.V.max}`
          : "",
        idle: typeof s.mA?.idle === "number" ? `${s.mA.idle} mA` : "",
        typ: typeof s.mA?.typ === "number" ? `${s.mA.typ} mA` : "",
        peak: typeof s.mA?.peak === "number" ? `${s.mA.peak} mA` : "",
        absMax: s.absMax_V === undefined ? "" : `${s.absMax_V} V`,
        VIH: exprText(l?.VIH),
        VIL: exprText(l?.VIL),
        VOH: exprText(l?.VOH),
        VOL: exprText(l?.VOL),
        top: exprText(l?.absMax),
        pin_mA: l?.pin_mA ? `${l.pin_mA.recommended} mA` : "",
        forLoads: s.forLoads ?? false,
      };
    }),
    address,
    clock: bus?.max_Hz ? `${bus.max_Hz / 1000} kHz` : "",
    mode: String(part.groups.find((g) => g.kind === "spi")?.mode ?? ""),
    orientation: part.body.orientation ?? "",
    caution: part.cautions[0] ?? "",
    width_mm: String(part.body.mm[0]),
    height_mm: String(part.body.mm[1]),
    header: part.body.header?.kind ?? "male",
    solder: part.body.solder,
    ...extrasFrom(part),
    ...layoutFrom(part),
    base: part,
  });
}

/** Safe assumptions where an output's data is missing: weak high, weak low. Inputs without data are not judged at all. */
const ASSUMED = { VOH: "V-0.8", VOL: 0.5, top: "V+0.3" } as const;

const before = (b: Build, key: string) => b.original?.supplies.find((x) => x.key === key);

function levelSets(b: Build, used: Set<string>): Record<string, Level> {
  const out: Record<string, Level> = structuredClone(b.draft.base?.levels ?? {});
  for (const s of b.draft.supplies) {
    const was = before(b, s.key);
    const fresh = [...used].some((name) => name.startsWith(`${s.key}_`));
    const text = (k: "VIH" | "VIL" | "VOH" | "VOL" | "top" | "pin_mA") => (!fresh && was?.[k] === s[k] ? "" : s[k]);
    const volts = (k: "VIH" | "VIL" | "VOH" | "VOL" | "top") => read(b, `supplies/${s.key}/${k}`, text(k), readVolts);
    const [VIH, VIL, VOH, VOL, top] = [volts("VIH"), volts("VIL"), volts("VOH"), volts("VOL"), volts("top")];
    const mA = read(b, `supplies/${s.key}/pin_mA`, text("pin_mA"), readMilliamps);
    const limits = mA === undefined ? {} : { pin_mA: { recommended: mA, absMax: Number((mA * 2).toPrecision(6)) } };
    for (const [name, l] of Object.entries(out)) {
      if (l.supply !== s.key || l.output === "analog" || l.input === "analog") continue;
      out[name] = {
        ...l,
        ...(VIH !== undefined && { VIH }),
        ...(VIL !== undefined && { VIL }),
        ...(VOH !== undefined && l.output === "push-pull" && { VOH }),
        ...(VOL !== undefined && l.output !== "none" && { VOL }),
        ...(top !== undefined && { absMax: top }),
        ...(mA !== undefined && { pin_mA: { recommended: mA, absMax: Math.max(mA, l.pin_mA?.absMax ?? mA * 2) } }),
      };
    }
    const digital = { ...(VIH !== undefined && { VIH }), ...(VIL !== undefined && { VIL }) };
    const base = { supply: s.key, absMax: top ?? ASSUMED.top, absMin: -0.3, C_pF: 10 };
    if (used.has(`${s.key}_digital`))
      out[`${s.key}_digital`] = {
        ...base,
        ...digital,
        VOH: VOH ?? ASSUMED.VOH,
        VOL: VOL ?? ASSUMED.VOL,
        input: "cmos",
        output: "push-pull",
        ...limits,
      };
    if (used.has(`${s.key}_open`))
      out[`${s.key}_open`] = { ...base, ...digital, VOL: VOL ?? 0.4, input: "cmos", output: "open-drain" };
    if (used.has(`${s.key}_analog`))
      out[`${s.key}_analog`] = { ...base, VOH: "V", VOL: 0, input: "none", output: "analog" };
  }
  return out;
}

const EXTRAS = ["tie", "tiePin", "floats", "rests"] as const;

function buildPins(b: Build, list: readonly DraftPin[], where: string, used: Set<string>): Pin[] {
  const base = b.draft.base;
  const seen = new Set<string>();
  return list.map((p, i): Pin => {
    const path = `${where}/${i}`;
    const label = tidyLabel(p.label);
    if (!label) b.say(path, "every pin needs a label, as printed");
    else if (seen.has(label)) b.say(path, `"${label}" is used twice; write ${label}.2`);
    seen.add(label);
    if (
      p.supply &&
      !b.draft.supplies.some((s) => s.key === p.supply) &&
      /supply|^(in|out|both|spi|uart|i2c|open|analog|strap)/.test(p.role)
    )
      b.say(path, `there is no supply "${p.supply}"`);
    const old = base?.pins.find((x) => x.label === p.from);
    const says = p.says ? { says: p.says.slice(0, 200) } : {};
    const was = b.original?.pins.find((x) => x.from === p.from);
    if (old && base && roleOf(base, old) === p.role) {
      const { says: _says, ...rest } = old;
      if (p.says === (old.says ?? "") && label === old.label && p.supply === was?.supply)
        return EXTRAS.every((k) => p[k] === was[k]) ? old : withPinExtras(b, path, old, p);
      const moved = old.level && base.levels[old.level]?.supply !== p.supply ? { level: `${p.supply}_digital` } : {};
      if (moved.level) used.add(moved.level);
      // A pin that is now called what was another's second name takes it over.
      const aliases = old.aliases?.filter((a) => !list.some((x) => tidyLabel(x.label) === a));
      return withPinExtras(b, path, { ...rest, ...(aliases && { aliases }), ...moved, label, ...says }, p);
    }
    const more = (pin: Pin) => withPinExtras(b, path, pin, p);
    if (p.role === "strap") {
      used.add(`${p.supply}_digital`);
      return more({ label, role: "signal", io: "in", level: `${p.supply}_digital`, ...says });
    }
    if (p.role === "supply-in" || p.role === "supply-out")
      return { label, role: p.role, supply: p.supply, ...says, ...(p.optional && { optional: true }) };
    if (p.role === "ground")
      return { label, role: "ground", domain: "gnd", ...says, ...(p.optional && { optional: true }) };
    if (p.role === "unused") return { label, role: "nc", ...says };
    const signal = SIGNAL[p.role];
    if (!signal) return more({ label, role: "passive", ...says });
    const level = `${p.supply}_${signal.set}`;
    used.add(level);
    return more({
      label,
      role: "signal",
      io: signal.io,
      level,
      need: { ...signal.need, ...(p.optional && { optional: true }) },
      ...says,
    });
  });
}

const BUS_KINDS = new Set(["i2c", "spi", "uart"]);
const BUS_ROLE = /^(i2c|spi|uart)-/;

/** A group of the base part that still stands: all its pins are there and play what they played. */
function groupStands(b: Build, g: Part["groups"][number], pins: readonly DraftPin[]): boolean {
  return Object.values(g.pins).every((label) => {
    const now = pins.find((p) => tidyLabel(p.label) === label);
    const was = b.original?.pins.find((p) => p.label === label);
    return now !== undefined && now.role === was?.role;
  });
}

function buildGroups(b: Build, pins: readonly DraftPin[]): Part["groups"] {
  const { draft, original } = b;
  const said = (k: "address" | "clock" | "mode") => (original?.[k] === draft[k] ? "" : draft[k]);
  const changed = {
    address: read(b, "address", said("address"), readAddress),
    max_Hz: read(b, "clock", said("clock"), readHertz),
  };
  const mode = said("mode").trim();
  if (mode && !/^[0-3]$/.test(mode)) b.say("mode", "the SPI mode is 0, 1, 2 or 3");
  const put = (g: Part["groups"][number]): Part["groups"][number] => ({
    ...g,
    ...(g.kind === "i2c" && changed.address && { address: changed.address }),
    ...(g.kind !== "uart" && changed.max_Hz && BUS_KINDS.has(g.kind) && { max_Hz: changed.max_Hz }),
    ...(g.kind === "spi" && /^[0-3]$/.test(mode) && { mode: Number(mode) }),
  });
  const out = (draft.base?.groups ?? []).filter((g) => groupStands(b, g, pins)).map(put);
  const taken = new Set(out.filter((g) => BUS_KINDS.has(g.kind)).flatMap((g) => Object.values(g.pins)));
  const at = (role: OwnRole) => {
    const p = pins.find((x) => x.role === role && !taken.has(tidyLabel(x.label)));
    return p && tidyLabel(p.label);
  };
  if (!pins.some((p) => BUS_ROLE.test(p.role))) return out;
  const [sda, scl] = [at("i2c-sda"), at("i2c-scl")];
  if (Boolean(sda) !== Boolean(scl))
    b.say("pins", `I2C needs both lines: there is ${sda ? "SDA but no SCL" : "SCL but no SDA"}`);
  if (sda && scl) out.push(put({ id: "bus", kind: "i2c", pins: { sda, scl } }));
  const [sck, mosi, miso, cs] = [at("spi-sck"), at("spi-mosi"), at("spi-miso"), at("spi-cs")];
  if (sck && (mosi || miso))
    out.push(
      put({ id: "spi", kind: "spi", pins: { sck, ...(mosi && { mosi }), ...(miso && { miso }), ...(cs && { cs }) } }),
    );
  else if (mosi || miso) b.say("pins", "SPI needs a clock line: no pin is the SPI clock");
  const [tx, rx] = [at("uart-tx"), at("uart-rx")];
  if (tx || rx) out.push({ id: "port", kind: "uart", pins: { ...(tx && { rx: tx }), ...(rx && { tx: rx }) } });
  return out;
}

function buildSupplies(b: Build, pins: readonly DraftPin[]): Part["supplies"] {
  const fedInside = (key: string) => b.draft.feeds.some((f) => f.to === key);
  const out: Part["supplies"] = {};
  for (const s of b.draft.supplies) {
    const old = b.draft.base?.supplies[s.key];
    const was = before(b, s.key);
    const path = `supplies/${s.key}`;
    const same = (k: "V" | "idle" | "typ" | "peak" | "absMax") => old !== undefined && was?.[k] === s[k];
    const V = (same("V") ? undefined : read(b, `${path}/V`, s.V, readRange)) ?? old?.V;
    const used = pins.filter((p) => p.supply === s.key && !["ground", "terminal", "unused"].includes(p.role));
    if (!V && !used.length && !fedInside(s.key)) continue;
    if (!V && !s.V.trim()) b.say(`${path}/V`, "the supply range is missing: it says what the part may be fed with");
    const range = V ?? { min: 0, typ: 0, max: 0 };
    const absMax = same("absMax") ? undefined : read(b, `${path}/absMax`, s.absMax, readVolts);
    const gives =
      used.some((p) => p.role === "supply-out") &&
      !used.some((p) => p.role === "supply-in" || p.from) &&
      !old?.source &&
      !fedInside(s.key);
    const touched = !(same("idle") && same("typ") && same("peak"));
    const mA = (k: "idle" | "typ" | "peak") => (touched ? read(b, `${path}/${k}`, s[k], readMilliamps) : undefined);
    const [idle, typ, peak] = [mA("idle"), mA("typ"), mA("peak")];
    const any = peak ?? typ ?? idle;
    const draws = {
      idle: idle ?? typ ?? any ?? 0,
      typ: typ ?? any ?? 0,
      peak: Math.max(any ?? 0, typ ?? 0, idle ?? 0),
    };
    out[s.key] = {
      ...(old ?? { label: s.key, domain: "gnd" }),
      V: range,
      ...(typeof absMax === "number" && { absMax_V: absMax }),
      ...(any !== undefined && !gives && !old?.source && { mA: draws }),
      ...(s.forLoads && { forLoads: true }),
      ...(gives && { source: { V: range, limit_mA: any ?? 0 } }),
      ...(old?.source && {
        source: { ...old.source, ...(!same("V") && V && { V }), ...(any !== undefined && { limit_mA: any }) },
      }),
    };
    if (!s.forLoads) delete out[s.key]!.forLoads;
    if (gives && any === undefined) b.say(`${path}/peak`, "how much current it gives is missing");
  }
  return out;
}

const positive = (text: string, fallback: number) => {
  const v = Number(text.replace(",", "."));
  return Number.isFinite(v) && v > 0 && v < 2000 ? v : fallback;
};

/** The board section of a copy: its headers as the pins stand now, its lists without pins that are gone. */
const boardOf = (board: NonNullable<Part["board"]>, layout: Layout, labels: ReadonlySet<string>) => ({
  ...board,
  ...(layout.headers && { headers: layout.headers }),
  ...(layout.rowPitch_mm !== undefined && { rowPitch_mm: layout.rowPitch_mm }),
  ...(board.portGroups && {
    portGroups: board.portGroups.flatMap((g) => {
      const pins = g.pins.filter((l) => labels.has(l));
      return pins.length ? [{ ...g, pins }] : [];
    }),
  }),
});

/** Of a copied part's body, what no field of the editor says: its holes in a panel, and its prints while they hold. */
function bodyOf(base: Part | undefined, layout: Layout): Partial<Part["body"]> {
  const { orientation: _o, prints: _p, header: _h, ...rest } = base?.body ?? {};
  return { ...rest, ...(layout.prints && { prints: layout.prints }) };
}

/** What is said of single values of a copied part, where they are still those values. */
const stillSaid = (base: Part, now: unknown) =>
  Object.fromEntries(
    Object.entries(base.values ?? {}).filter(
      ([path]) => JSON.stringify(valueAt(base, path)) === JSON.stringify(valueAt(now as Part, path)),
    ),
  );

/**
 * Turns a draft into a part definition. All mistakes come back with the field they are in; `part` is null only while
 * the definition could not be used at all.
 */
export function buildPart(draft: OwnDraft): BuildResult {
  const problems: DraftProblem[] = [];
  const b: Build = {
    draft,
    original: draft.base ? draftFrom(draft.base, false) : null,
    problems,
    say: (f, message) => problems.push({ field: f, message }),
  };
  if (!draft.name.trim()) b.say("name", "give it a name that you will find again");
  if (!draft.pins.length) b.say("pins", "no pins yet: type their labels in printed order, or paste the table");
  const used = new Set<string>();
  const bare = buildPins(b, draft.pins, "pins", used);
  const layout = buildLayout(b, bare);
  const { pins } = layout;
  const groups = buildGroups(b, draft.pins);
  const alternatives = draft.variants.map((v, i) => {
    const same =
      v.pins
        .map((p) => tidyLabel(p.label))
        .sort()
        .join() ===
      draft.pins
        .map((p) => tidyLabel(p.label))
        .sort()
        .join();
    if (!same)
      b.say(`variants/${i}`, `"${v.name}" must have the same pin labels as the first; only names and roles differ`);
    return { ...v, built: buildPins(b, v.pins, `variants/${i}/pins`, used), groups: buildGroups(b, v.pins) };
  });
  const supplies = buildSupplies(b, [...draft.pins, ...draft.variants.flatMap((v) => v.pins)]);
  const levels = levelSets(b, used);
  const ohm = read(b, "pullUps", draft.pullUps, readOhms);
  const labels = new Set(pins.map((p) => p.label));
  const stays = (end: string) => end.includes(":") || labels.has(end);
  const pulls = ohm
    ? pins
        .filter((p) => p.need?.kind === "i2c" || p.io === "open-drain")
        .map((p): Part["elements"][number] => ({
          kind: "resistor",
          a: p.label,
          b: `supply:${levels[p.level!]?.supply ?? "main"}`,
          ohm,
          tolerance: 0.1,
        }))
    : [];
  const sourced = draft.sourceTitle.trim();
  const id = draft.id || `${draft.kind}/${slug(draft.name) || "own-part"}`;
  const base = draft.base;
  const raw: Record<string, unknown> = {
    ...(base && {
      ...base,
      options: base.options.filter((o) => o.key !== "variant"),
      ...(base.board && { board: boardOf(base.board, layout, labels) }),
    }),
    id,
    name: draft.name.trim() || "Own part",
    does: draft.does.trim() || draft.name.trim() || "A part of my own",
    sources: [
      {
        title: sourced || "Written down by hand",
        where: draft.sourceWhere.trim() || (sourced ? "not noted" : "no data sheet"),
      },
    ],
    certainty: sourced ? draft.certainty : "low",
    cautions: [...(draft.caution.trim() ? [draft.caution.trim()] : []), ...(base?.cautions.slice(1) ?? [])],
    pins,
    supplies,
    converters: buildFeeds(b, supplies),
    channels: buildChannels(b, labels),
    companions: buildCompanions(b, labels),
    gates: buildGates(b, labels),
    levels: Object.fromEntries(Object.entries(levels).filter(([, l]) => supplies[l.supply])),
    groups,
    elements: [...(base?.elements ?? []).filter((e) => elementEnds(e).every(stays)), ...pulls],
    body: {
      ...bodyOf(base, layout),
      mm: [positive(draft.width_mm, 20), positive(draft.height_mm, 15)],
      header: { ...layout.header, kind: draft.header },
      solder: draft.solder,
      ...(draft.orientation.trim() && { orientation: draft.orientation.trim() }),
    },
  };
  if (base?.values) raw.values = stillSaid(base, raw);
  const straps = buildStraps(b, pins, groups);
  // The first address is the one as sold, unless another one was typed.
  const sold = straps[0]?.default;
  if (sold !== undefined) raw.groups = groups.map((g) => (g.kind === "i2c" ? { address: sold, ...g } : g));
  if (straps.length) raw.options = [...((raw.options as unknown[]) ?? []), ...straps];
  raw.bringup ??= { driver: "generic" };
  if (alternatives.length)
    raw.options = [
      ...((raw.options as unknown[]) ?? []),
      {
        kind: "choice",
        key: "variant",
        label: "Which one",
        default: "1",
        choices: [
          { value: "1", label: draft.variantName.trim() || "the first", patch: [] },
          ...alternatives.map((v, i) => ({
            value: String(i + 2),
            label: v.name.trim() || `kind ${i + 2}`,
            patch: [
              { op: "replace", path: "/pins", value: v.built },
              { op: "replace", path: "/groups", value: v.groups },
            ],
          })),
        ],
      },
    ];
  if (problems.some((p) => /^(pins|variants)/.test(p.field)) && !pins.length) return { part: null, problems };
  const result = validatePart(raw);
  if (!result.ok) {
    // What the person left out is said in the editor's own words; the rest in the schema's.
    if (!problems.length) for (const p of result.problems.slice(0, 20)) b.say(p.path, p.message);
    return { part: null, problems };
  }
  return { part: result.part, problems };
}
