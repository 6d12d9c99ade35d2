import { glyph } from "./text";

/**
 * The arithmetic of devices: whole numbers of 32 bits, as C and Python share them. Read from text such as
 * `u16be(0) * 175 / 100 - 4500`; what is read of a part stands in its bytes, asked for by place.
 */
export type Expression =
  | { kind: "number"; value: number }
  | { kind: "name"; name: string }
  | { kind: "call"; name: string; args: Expression[] }
  | { kind: "minus"; of: Expression }
  | { kind: "binary"; op: Op; a: Expression; b: Expression }
  | { kind: "choice"; if: Expression; then: Expression; else: Expression };

/** `/` goes towards zero, `%` keeps the sign of the first, `>>` keeps the sign: as in C. */
const LEVELS = [
  ["|"],
  ["^"],
  ["&"],
  ["==", "!="],
  ["<", ">", "<=", ">="],
  ["<<", ">>"],
  ["+", "-"],
  ["*", "/", "%"],
] as const;
export type Op = (typeof LEVELS)[number][number];

/** Bytes of what was read, by place, and what helps with them. */
const BYTES = {
  u8: (b: Bytes, i: number) => at(b, i),
  s8: (b: Bytes, i: number) => (at(b, i) << 24) >> 24,
  u16be: (b: Bytes, i: number) => (at(b, i) << 8) | at(b, i + 1),
  u16le: (b: Bytes, i: number) => (at(b, i + 1) << 8) | at(b, i),
  s16be: (b: Bytes, i: number) => (BYTES.u16be(b, i) << 16) >> 16,
  s16le: (b: Bytes, i: number) => (BYTES.u16le(b, i) << 16) >> 16,
  u24be: (b: Bytes, i: number) => (at(b, i) << 16) | (at(b, i + 1) << 8) | at(b, i + 2),
  bcd: (b: Bytes, i: number) => (at(b, i) >> 4) * 10 + (at(b, i) & 15),
} as const;
/** A digit as the segments of a display, a the lowest bit; 10 is a minus, more is dark. */
const SEGMENTS = [0x3f, 0x06, 0x5b, 0x4f, 0x66, 0x6d, 0x7d, 0x07, 0x7f, 0x6f, 0x40];
const PLAIN = { abs: Math.abs, seg7: (digit: number) => SEGMENTS[digit] ?? 0, glyph } as const;
/** Letters that a display is to show, by place, and what outputs are told. */
const LETTER = "char";
const LANE = "lane";
const PLAIN_IN_C: Record<keyof typeof PLAIN, string> = { abs: "labs", seg7: "of_seg7", glyph: "of_glyph" };
export const FUNCTIONS = [...Object.keys(BYTES), ...Object.keys(PLAIN), LETTER, LANE];
export const isOfBytes = (name: string): name is keyof typeof BYTES => name in BYTES;

type Bytes = readonly number[];
const at = (b: Bytes, i: number) => {
  const v = b[i];
  if (v === undefined) throw new Error(`byte ${i} of ${b.length} was asked for`);
  return v;
};

/** The same few texts are read again and again while a device is run. */
const parsed = new Map<string, Expression>();

/** Reads an expression. Throws on anything that is not one: devices are our own text, checked by their tests. */
export function parse(text: string): Expression {
  let known = parsed.get(text);
  if (!known) parsed.set(text, (known = read(text)));
  return known;
}

function read(text: string): Expression {
  const tokens = text.match(/0x[0-9a-fA-F]+|\d+|[A-Za-z_]\w*|<<|>>|[<>=!]=|[-+*/%&|^<>()?:,]/g) ?? [];
  if (tokens.join("") !== text.replace(/\s+/g, "")) throw new Error(`not an expression: ${text}`);
  let k = 0;
  const take = (want?: string) => {
    const t = tokens[k++];
    if (t === undefined || (want !== undefined && t !== want)) throw new Error(`${want ?? "more"} expected in ${text}`);
    return t;
  };
  const primary = (): Expression => {
    const t = take();
    if (t === "-") return { kind: "minus", of: primary() };
    if (t === "(") {
      const inner = choice();
      take(")");
      return inner;
    }
    if (/^\d/.test(t)) return { kind: "number", value: Number(t) };
    if (!/^\w+$/.test(t)) throw new Error(`${t} is out of place in ${text}`);
    if (tokens[k] !== "(") return { kind: "name", name: t };
    if (!FUNCTIONS.includes(t)) throw new Error(`unknown function ${t} in ${text}`);
    take("(");
    const args = [choice()];
    while (tokens[k] === ",") {
      take();
      args.push(choice());
    }
    take(")");
    return { kind: "call", name: t, args };
  };
  const binary = (level: number): Expression => {
    const ops = LEVELS[level] as readonly string[] | undefined;
    if (!ops) return primary();
    let a = binary(level + 1);
    while (k < tokens.length && ops.includes(tokens[k]!)) {
      const op = take() as Op;
      a = { kind: "binary", op, a, b: binary(level + 1) };
    }
    return a;
  };
  const choice = (): Expression => {
    const a = binary(0);
    if (tokens[k] !== "?") return a;
    take();
    const then = choice();
    take(":");
    return { kind: "choice", if: a, then, else: choice() };
  };
  const all = choice();
  if (k < tokens.length) throw new Error(`${tokens[k]} is left over in ${text}`);
  return all;
}

const COUNT: Record<Op, (a: number, b: number) => number> = {
  "|": (a, b) => a | b,
  "^": (a, b) => a ^ b,
  "&": (a, b) => a & b,
  "==": (a, b) => Number(a === b),
  "!=": (a, b) => Number(a !== b),
  "<": (a, b) => Number(a < b),
  ">": (a, b) => Number(a > b),
  "<=": (a, b) => Number(a <= b),
  ">=": (a, b) => Number(a >= b),
  "<<": (a, b) => a * 2 ** b,
  ">>": (a, b) => a >> b,
  "+": (a, b) => a + b,
  "-": (a, b) => a - b,
  "*": (a, b) => a * b,
  "/": (a, b) => Math.trunc(a / b),
  "%": (a, b) => a % b,
};

/** Works an expression out. Throws when a number leaves 32 bits: there C and Python would part. `text`: what a display is to show, `lanes`: what its outputs are told. */
export function evaluate(
  e: Expression,
  names: ReadonlyMap<string, number>,
  bytes: Bytes,
  text: Bytes = [],
  lanes: Bytes = [],
): number {
  const go = (x: Expression): number => {
    switch (x.kind) {
      case "number":
        return x.value;
      case "name": {
        const v = names.get(x.name);
        if (v === undefined) throw new Error(`${x.name} has no value yet`);
        return v;
      }
      case "call": {
        const args = x.args.map(go);
        if (x.name === LETTER) return at(text, args[0]!);
        if (x.name === LANE) return at(lanes, args[0]!);
        return isOfBytes(x.name)
          ? BYTES[x.name](bytes, args[0]!)
          : PLAIN[x.name as keyof typeof PLAIN](args[0]!, args[1] ?? 0);
      }
      case "minus":
        return -go(x.of);
      case "choice":
        return go(x.if) ? go(x.then) : go(x.else);
      case "binary": {
        const v = COUNT[x.op](go(x.a), go(x.b));
        if (!Number.isInteger(v) || v > 0x7fffffff || v < -0x80000000) throw new RangeError(`${v} leaves 32 bits`);
        return v;
      }
    }
  };
  return go(e);
}

const SIMPLE = new Set(["number", "name", "call"]);

/** An expression in C: numbers over 16 bits and products are counted in 32. */
export function toC(e: Expression, bytes: string, name: (n: string) => string): string {
  const inner = (x: Expression): string => (SIMPLE.has(x.kind) ? go(x) : `(${go(x)})`);
  const go = (x: Expression): string => {
    switch (x.kind) {
      case "number":
        return x.value > 0x7fff ? `${x.value}L` : `${x.value}`;
      case "name":
        return name(x.name);
      case "call":
        if (x.name === LETTER) return `textAt(${name("text")}, ${go(x.args[0]!)})`;
        if (x.name === LANE) return `${name("lanes")}[${go(x.args[0]!)}]`;
        return isOfBytes(x.name)
          ? `of_${x.name}(${bytes} + ${go(x.args[0]!)})`
          : `${PLAIN_IN_C[x.name as keyof typeof PLAIN]}(${x.args.map(go).join(", ")})`;
      case "minus":
        return `-${inner(x.of)}`;
      case "choice":
        return `${inner(x.if)} ? ${inner(x.then)} : ${inner(x.else)}`;
      case "binary":
        // A constant first would be counted in 16 bits on the small chips.
        return `${x.a.kind === "number" ? `(int32_t)${go(x.a)}` : inner(x.a)} ${x.op} ${inner(x.b)}`;
    }
  };
  return go(e);
}

/** The same in Python, where division goes down instead of towards zero: a helper stands for it. */
export function toPython(e: Expression, bytes: string, name: (n: string) => string): string {
  const inner = (x: Expression): string => (SIMPLE.has(x.kind) ? go(x) : `(${go(x)})`);
  const go = (x: Expression): string => {
    switch (x.kind) {
      case "number":
        return `${x.value}`;
      case "name":
        return name(x.name);
      case "call":
        if (x.name === LETTER) return `me.text[${go(x.args[0]!)}]`;
        if (x.name === LANE) return `me.lanes[${go(x.args[0]!)}]`;
        return isOfBytes(x.name) ? `${x.name}(${bytes}, ${go(x.args[0]!)})` : `${x.name}(${x.args.map(go).join(", ")})`;
      case "minus":
        return `-${inner(x.of)}`;
      case "choice":
        return `${inner(x.then)} if ${inner(x.if)} else ${inner(x.else)}`;
      case "binary":
        if (x.op === "/") return `idiv(${go(x.a)}, ${go(x.b)})`;
        if (x.op === "%") return `imod(${go(x.a)}, ${go(x.b)})`;
        return `${inner(x.a)} ${x.op} ${inner(x.b)}`;
    }
  };
  return go(e);
}
