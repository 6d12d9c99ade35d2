/**
 * The small arithmetic that catalogue data may use: numbers, + - * / ( ), min(a,b), max(a,b) and named variables
 * (`V` the pin's own supply in volts, `I` the pin's current in amperes, or an option key such as `pixels`).
 * It is parsed, never evaluated as code. Compiled expressions are cached by their text.
 */
type Node = (vars: Record<string, number>) => number;
type Token = { kind: "num"; value: number } | { kind: "name"; value: string } | { kind: "op"; value: string };

const FUNCTIONS: Record<string, (a: number, b: number) => number> = { min: Math.min, max: Math.max };
const MAX_LENGTH = 200;

function tokens(text: string): Token[] {
  const out: Token[] = [];
  const re = /\s*(?:(\d+\.?\d*(?:e[+-]?\d+)?|\.\d+)|([A-Za-z_][A-Za-z0-9_]*)|([-+*/(),]))/y;
  let at = 0;
  while (at < text.trimEnd().length) {
    re.lastIndex = at;
    const m = re.exec(text);
    if (!m) throw new SyntaxError(`"${text}": unexpected "${text[at]}" at ${at + 1}`);
    at = re.lastIndex;
    if (m[1] !== undefined) out.push({ kind: "num", value: Number(m[1]) });
    else if (m[2] !== undefined) out.push({ kind: "name", value: m[2] });
    else out.push({ kind: "op", value: m[3]! });
  }
  return out;
}

function parse(text: string): Node {
  if (text.length > MAX_LENGTH) throw new SyntaxError(`expression longer than ${MAX_LENGTH} characters`);
  const list = tokens(text);
  let at = 0;
  const peek = (op: string) => list[at]?.kind === "op" && list[at]!.value === op;
  const take = (op: string) => {
    if (!peek(op)) throw new SyntaxError(`"${text}": expected "${op}"`);
    at++;
  };
  const factor = (): Node => {
    const t = list[at++];
    if (!t) throw new SyntaxError(`"${text}": ends too early`);
    if (t.kind === "num") return () => t.value;
    if (t.kind === "op" && t.value === "-") {
      const f = factor();
      return (v) => -f(v);
    }
    if (t.kind === "op" && t.value === "(") {
      const e = sum();
      take(")");
      return e;
    }
    if (t.kind === "name" && peek("(")) {
      const fn = FUNCTIONS[t.value];
      if (!fn) throw new SyntaxError(`"${text}": unknown function "${t.value}"`);
      take("(");
      const a = sum();
      take(",");
      const b = sum();
      take(")");
      return (v) => fn(a(v), b(v));
    }
    if (t.kind === "name")
      return (v) => {
        const value = v[t.value];
        if (value === undefined) throw new ReferenceError(`"${text}": nothing known about "${t.value}"`);
        return value;
      };
    throw new SyntaxError(`"${text}": unexpected "${t.value}"`);
  };
  const chain = (next: () => Node, ops: string[]): Node => {
    let left = next();
    for (let op = ops.find(peek); op; op = ops.find(peek)) {
      at++;
      const a = left;
      const b = next();
      left =
        op === "+"
          ? (v) => a(v) + b(v)
          : op === "-"
            ? (v) => a(v) - b(v)
            : op === "*"
              ? (v) => a(v) * b(v)
              : (v) => a(v) / b(v);
    }
    return left;
  };
  const product = () => chain(factor, ["*", "/"]);
  function sum(): Node {
    return chain(product, ["+", "-"]);
  }
  const root = sum();
  if (at < list.length) throw new SyntaxError(`"${text}": unexpected "${list[at]!.value}"`);
  return root;
}

const cache = new Map<string, Node>();
function compiled(text: string): Node {
  let node = cache.get(text);
  if (!node) {
    node = parse(text);
    if (cache.size < 5000) cache.set(text, node);
  }
  return node;
}

/** A catalogue value: a number, or an expression as described above. */
export type Expr = number | string;

/** Evaluates `expr` with `vars`. Throws SyntaxError or ReferenceError for text that is no expression (a data bug). */
export function evaluate(expr: Expr, vars: Record<string, number> = {}): number {
  return typeof expr === "number" ? expr : compiled(expr)(vars);
}

/** The variable names that an expression uses; empty for a number. Functions do not count. */
export function expressionNames(expr: Expr): string[] {
  if (typeof expr === "number") return [];
  const list = tokens(expr);
  return list.flatMap((t, i) => {
    const next = list[i + 1];
    const call = next?.kind === "op" && next.value === "(";
    return t.kind === "name" && !call ? [t.value] : [];
  });
}

/** Null when `text` is a well-formed expression, else a sentence. Used by the part schema. */
export function expressionProblem(text: string): string | null {
  try {
    compiled(text);
    return null;
  } catch (e) {
    return e instanceof Error ? e.message : String(e);
  }
}
