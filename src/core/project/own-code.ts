/** Places in the programs of each target where a person's own code stands, in the order of the file. */
export const REGIONS: Readonly<Record<string, readonly string[]>> = {
  sketch: ["globals", "setup", "loop"],
  micropython: ["globals", "loop"],
  python: ["globals", "loop"],
  "avr-c": ["globals", "setup", "loop"],
};

/** What begins and ends own code in a file: own code can't hold it, or it would end itself. */
export const MARK = /(>>>|<<<) your code\b/;

const HIDDEN = /[\0-\x08\x0b\x0c\x0e-\x1f\x7f\u202a-\u202e\u2066-\u2069]/;

/** `loop` of the only board, `B2.loop` of one among several. */
export const splitRegion = (key: string): { host: string | null; name: string } => {
  const dot = key.indexOf(".");
  return dot < 0 ? { host: null, name: key } : { host: key.slice(0, dot), name: key.slice(dot + 1) };
};

/** What is wrong with the own code of a document: targets and regions that no program has, and what would break a file. */
export function ownCodeProblems(
  code: Readonly<Record<string, Readonly<Record<string, string>>>>,
  refs: ReadonlySet<string>,
): { path: string; message: string }[] {
  return Object.entries(code).flatMap(([target, list]) => {
    const names = REGIONS[target];
    if (!names)
      return [
        {
          path: `code/${target}`,
          message: `there is no target "${target}" with places for own code; they are ${Object.keys(REGIONS).join(", ")}`,
        },
      ];
    return Object.entries(list).flatMap(([key, text]) => {
      const { host, name } = splitRegion(key);
      const path = `code/${target}/${key}`;
      if (!names.includes(name))
        return [
          { path, message: `${target} programs have no place "${name}" for own code; theirs are ${names.join(", ")}` },
        ];
      if (host !== null && !refs.has(host)) return [{ path, message: `there is no part "${host}" in this project` }];
      // A tab and line ends are fine; what else can't be seen stops a compiler, or hides what stands there.
      if (HIDDEN.test(text)) return [{ path, message: "own code holds characters that can't be seen; take them out" }];
      return MARK.test(text)
        ? [{ path, message: "own code can't hold the marks between which it stands in the file; take that line out" }]
        : [];
    });
  });
}
