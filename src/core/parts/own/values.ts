import { expressionProblem, parseQuantity, type Expr } from "../../quantity";

/** What a person typed in a field of a data sheet value: read, or a sentence that says how to write it. */
export type Read<T> = { ok: true; value: T } | { ok: false; message: string };

const SUPPLY_NAMES = /(?<![A-Za-z])(?:V[_ ]?(?:DDIOL?|DDIO|DD|CCIO|CC|IN|IO|BAT|S)|supply)(?![A-Za-z])/gi;
/** Stands for the supply while units are taken off, so that `0.7 VCC` is never read as 0.7 volts. */
const SUPPLY = "§";
const no = (message: string): Read<never> => ({ ok: false, message });
const clean = (text: string) =>
  text
    .trim()
    .replace(/[−–]/g, "-")
    .replace(/[×·∙⋅]/g, "*")
    .replace(/(\d),(\d)/g, "$1.$2");

/**
 * A voltage or a threshold as data sheets print it: `2.0`, `3.3V`, `3V3`, `800 mV`, `0.7*VDD`, `0.7 VCC`, `VDD - 0.5 V`,
 * `70 % of VCC`. Comes back as a number in volts or an expression in `V`, the pin's own supply.
 */
export function readVolts(text: string): Read<Expr> {
  let t = clean(text);
  if (!t) return no("empty");
  const infix = /^(\d+)[Vv](\d+)$/.exec(t);
  if (infix) return { ok: true, value: Number(`${infix[1]}.${infix[2]}`) };
  t = t.replace(/(\d+(?:\.\d+)?)\s*%\s*(?:of\s+|\*\s*|x\s*)?/gi, (_, n: string) => `${Number(n) / 100}*`);
  t = t.replace(SUPPLY_NAMES, SUPPLY).replace(/([*/]\s*)V(?![A-Za-z])/g, `$1${SUPPLY}`);
  t = t.replace(/(^|[-+(,]\s*)V(?=\s*(?:[-+*/),]|$))/g, `$1${SUPPLY}`);
  t = t.replace(/(\d+(?:\.\d+)?)\s*mV\b/g, (_, n: string) => String(Number(n) / 1000));
  t = t.replace(/(\d)\s*[Vv](?![A-Za-z])/g, "$1");
  t = t.replace(/(\d(?:\.\d+)?)\s*[xX*]?\s*§/g, `$1*${SUPPLY}`).replace(/\s+/g, "");
  if (/^-?\d+(\.\d+)?$/.test(t)) return { ok: true, value: Number(t) };
  t = t.replaceAll(SUPPLY, "V");
  const names = t.match(/[A-Za-z_]+/g) ?? [];
  if (names.some((n) => !["V", "I", "min", "max"].includes(n)) || expressionProblem(t))
    return no(`"${text.trim()}" is not a voltage; write it like 2.0, 3.3V, 0.7*VDD or VDD-0.5`);
  return { ok: true, value: t };
}

export interface Span {
  min: number;
  typ: number;
  max: number;
}

const volts = (t: string): number | null => {
  const r = readVolts(t);
  return r.ok && typeof r.value === "number" ? r.value : null;
};

/**
 * A supply range: `3.3V`, `2.7 to 5.5 V`, `3.0-3.6`, `2.7 … 5.5, typ. 3.3`, `5V ±10%`, `min 3 typ 3.3 max 3.6`. A single
 * value gets five percent both ways. Volts.
 */
export function readRange(text: string): Read<Span> {
  const t = clean(text).replace(/\.\.+|…/g, " to ");
  const how = `"${text.trim()}" is not a range; write it like 2.7 to 5.5 V, or 5V ±5%`;
  if (!t) return no("empty");
  const order = (min: number, typ: number, max: number): Read<Span> =>
    min <= typ && typ <= max
      ? { ok: true, value: { min, typ, max } }
      : no(`${min}, ${typ}, ${max} V: the smallest comes first`);
  const named = (word: string) => {
    const m = new RegExp(`\\b${word}\\w*\\.?\\s*:?\\s*(-?\\d[\\d.]*\\s*m?V?\\d*)`, "i").exec(t);
    return m ? volts(m[1]!) : null;
  };
  const [nMin, nTyp, nMax] = [named("min"), named("typ"), named("max")];
  if (nMin !== null && nMax !== null) return order(nMin, nTyp ?? usual(nMin, nMax), nMax);
  const plusMinus = /^(.+?)\s*(?:±|\+\/-)\s*(\d+(?:\.\d+)?)\s*(%|m?V)?$/.exec(t);
  if (plusMinus) {
    const mid = volts(plusMinus[1]!);
    if (mid === null) return no(how);
    const by =
      plusMinus[3] === "%"
        ? (mid * Number(plusMinus[2])) / 100
        : Number(plusMinus[2]) / (plusMinus[3] === "mV" ? 1000 : 1);
    return order(round(mid - by), mid, round(mid + by));
  }
  const two = /^(\d[\d.]*\s*m?[Vv]?\d*)\s*(?:-|to|bis|\/)\s*(\d[\d.]*\s*m?[Vv]?\d*)$/i.exec(
    t.replace(/[,;]?\s*\(?typ\w*\.?.*$/i, "").trim(),
  );
  if (two) {
    const [a, b] = [volts(two[1]!), volts(two[2]!)];
    if (a === null || b === null) return no(how);
    return order(a, nTyp ?? usual(a, b), b);
  }
  const one = volts(t);
  return one === null || one <= 0
    ? no(how)
    : { ok: true, value: { min: round(one * 0.95), typ: one, max: round(one * 1.05) } };
}

const round = (v: number) => Number(v.toFixed(3));
/** The voltage at which such a part is usually run: 3.3 or 5 where the range has it. */
const usual = (min: number, max: number) => [3.3, 5, 12].find((v) => v >= min && v <= max) ?? round((min + max) / 2);

/** A current in milliamperes: `20`, `20 mA`, `0.5A`, `350 µA`, `2 uA`. A bare number is milliamperes. */
export function readMilliamps(text: string): Read<number> {
  const t = clean(text).replace(/^[<≤~≈]\s*/, "");
  if (/^\d+(\.\d+)?$/.test(t)) return { ok: true, value: Number(t) };
  const q = parseQuantity(t);
  return q.ok && q.value >= 0 && /A$/.test(t)
    ? { ok: true, value: Number((q.value * 1000).toPrecision(6)) }
    : no(`"${text.trim()}" is not a current; write it like 20 mA, 0.5 A or 350 µA`);
}

/** A resistance in ohms: `4k7`, `10 k`, `330R`. */
export function readOhms(text: string): Read<number> {
  const q = parseQuantity(clean(text).replace(/ohms?$/i, "ohm"), "\u03a9");
  if (!q.ok) return no(q.message);
  return q.value > 0 ? q : no(`"${text.trim()}" is not a resistance; write it like 4k7 or 10k`);
}

/** A capacitance in farads: `100 nF`, `10uF`. */
export function readFarads(text: string): Read<number> {
  const q = parseQuantity(clean(text).replace(/\s*f$/i, "F"));
  return q.ok && q.value > 0 && q.value < 1
    ? { ok: true, value: Number(q.value.toPrecision(6)) }
    : no(`"${text.trim()}" is not a capacitance; write it like 100 nF or 10 µF`);
}

/** A clock in hertz: `400 kHz`, `8MHz`, `100000`. */
export function readHertz(text: string): Read<number> {
  const q = parseQuantity(
    clean(text)
      .replace(/\s*hz$/i, "Hz")
      .replace(/K(?=Hz$)/, "k"),
  );
  return q.ok && q.value > 0 ? q : no(`"${text.trim()}" is not a frequency; write it like 400 kHz or 8 MHz`);
}

/** An I2C address: `0x76`, `76h`, `118`. */
export function readAddress(text: string): Read<string> {
  const t = text.trim().toLowerCase();
  const hex = /^0x([0-9a-f]{1,2})$/.exec(t)?.[1] ?? /^([0-9a-f]{1,2})h$/.exec(t)?.[1];
  const n = hex ? parseInt(hex, 16) : /^\d+$/.test(t) ? Number(t) : NaN;
  if (!(n >= 0x08 && n <= 0x77))
    return no(
      n > 0x77 && n <= 0xff && n % 2 === 0
        ? `0x${n.toString(16)} looks like an address with the read/write bit; as 7 bits it is 0x${(n >> 1).toString(16)}`
        : `"${text.trim()}" is not an I2C address; write it like 0x76 (0x08 to 0x77)`,
    );
  return { ok: true, value: `0x${n.toString(16).padStart(2, "0")}` };
}
