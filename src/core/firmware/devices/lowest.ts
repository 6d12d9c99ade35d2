/** The lowest of the lines on which something hangs (the first of all where nothing does), and all lines with that one in front: it is watched. */
export function firstFirst(lines: readonly number[], hung: number | undefined): [number, number[]] {
  const first = lines.find((k) => (hung ?? 0) & (1 << k)) ?? lines[0]!;
  return [first, [first, ...lines.filter((k) => k !== first)]];
}
