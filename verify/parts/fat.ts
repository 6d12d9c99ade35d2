/** A card's file system, made and read by its own description alone: what a computer would find on it. */

const SECTORS = 131_072;
type Blocks = Map<number, Uint8Array>;

interface Shape {
  wide: boolean;
  /** Where the file system begins; 0 without a table of partitions. */
  start: number;
  perCluster: number;
  fatAt: number;
  fatSectors: number;
  rootAt: number;
  rootSectors: number;
  dataAt: number;
}
const RESERVED = 32;
function shapeOf(wide: boolean, start: number): Shape {
  const perCluster = wide ? 1 : 4;
  const rootSectors = wide ? 0 : 32;
  const clusters = Math.floor((SECTORS - start - RESERVED) / perCluster);
  const fatSectors = Math.ceil(((clusters + 2) * (wide ? 4 : 2)) / 512);
  const fatAt = start + RESERVED;
  const rootAt = fatAt + 2 * fatSectors;
  return { wide, start, perCluster, fatAt, fatSectors, rootAt, rootSectors, dataAt: rootAt + rootSectors };
}
const block = (b: Blocks, n: number) => {
  if (!b.has(n)) b.set(n, new Uint8Array(512));
  return b.get(n)!;
};
const view = (x: Uint8Array) => new DataView(x.buffer, x.byteOffset, x.length);

function entryOf(b: Blocks, s: Shape, copy: number, cluster: number) {
  const size = s.wide ? 4 : 2;
  const at = cluster * size;
  return { v: view(block(b, s.fatAt + copy * s.fatSectors + Math.floor(at / 512))), at: at % 512 };
}
const get = (b: Blocks, s: Shape, cluster: number, copy = 0) => {
  const { v, at } = entryOf(b, s, copy, cluster);
  return s.wide ? v.getUint32(at, true) & 0x0fffffff : v.getUint16(at, true);
};
const put = (b: Blocks, s: Shape, cluster: number, value: number) => {
  for (const copy of [0, 1]) {
    const { v, at } = entryOf(b, s, copy, cluster);
    if (s.wide) v.setUint32(at, value, true);
    else v.setUint16(at, value, true);
  }
};
const end = (s: Shape) => (s.wide ? 0x0fffffff : 0xffff);
const sectorOf = (s: Shape, cluster: number) => s.dataAt + (cluster - 2) * s.perCluster;

const name = (text: string) => new TextEncoder().encode(text.split(".")[0]!.padEnd(8) + text.split(".")[1]!.padEnd(3));

/** A card with some files; each in the clusters that are named, in that order. */
export function makeCard(o: {
  wide: boolean;
  partition: boolean;
  files: readonly { name: string; text: string; clusters: readonly number[] }[];
}): Blocks {
  const b: Blocks = new Map();
  const s = shapeOf(o.wide, o.partition ? 2048 : 0);
  if (o.partition) {
    const m = view(block(b, 0));
    m.setUint8(446 + 4, o.wide ? 0x0c : 0x06);
    m.setUint32(446 + 8, s.start, true);
    m.setUint32(446 + 12, SECTORS - s.start, true);
    m.setUint16(510, 0xaa55, true);
  }
  const boot = view(block(b, s.start));
  boot.setUint8(0, 0xeb);
  boot.setUint16(11, 512, true);
  boot.setUint8(13, s.perCluster);
  boot.setUint16(14, RESERVED, true);
  boot.setUint8(16, 2);
  boot.setUint16(17, s.rootSectors * 16, true);
  boot.setUint8(21, 0xf8);
  if (!o.wide) boot.setUint16(22, s.fatSectors, true);
  boot.setUint32(32, SECTORS - s.start, true);
  if (o.wide) {
    boot.setUint32(36, s.fatSectors, true);
    boot.setUint32(44, 2, true);
  }
  boot.setUint16(510, 0xaa55, true);
  put(b, s, 0, end(s) - 7);
  put(b, s, 1, end(s));
  if (o.wide) put(b, s, 2, end(s));
  const root = s.wide ? sectorOf(s, 2) : s.rootAt;
  // A name for the whole, as cards have one.
  block(b, root).set(name("BEEHIVE.   "), 0);
  block(b, root)[11] = 0x08;
  for (const [i, f] of o.files.entries()) {
    const e = view(block(b, root));
    const at = 32 * (i + 1);
    block(b, root).set(name(f.name), at);
    e.setUint8(at + 11, 0x20);
    e.setUint16(at + 26, f.clusters[0] ?? 0, true);
    e.setUint32(at + 28, f.text.length, true);
    const bytes = new TextEncoder().encode(f.text);
    f.clusters.forEach((c, k) => {
      put(b, s, c, f.clusters[k + 1] ?? end(s));
      for (let q = 0; q < s.perCluster; q++)
        block(b, sectorOf(s, c) + q).set(bytes.slice((k * s.perCluster + q) * 512, (k * s.perCluster + q + 1) * 512));
    });
  }
  return b;
}

/** All files of the top folder with their text. Throws on chains that are broken, shared or that the two tables disagree about. */
export function readCard(b: Blocks): Map<string, string> {
  const first = view(block(b, 0));
  const start = first.getUint8(0) === 0xeb ? 0 : first.getUint32(446 + 8, true);
  const boot = view(block(b, start));
  const wide = boot.getUint16(22, true) === 0;
  const s = shapeOf(wide, start);
  const used = new Set<number>();
  const chain = (from: number) => {
    const list: number[] = [];
    for (let c = from; c !== 0 && c < end(s) - 7; c = get(b, s, c)) {
      if (used.has(c)) throw new Error(`cluster ${c} is in two chains`);
      if (get(b, s, c) !== get(b, s, c, 1)) throw new Error(`the two tables disagree about cluster ${c}`);
      if (get(b, s, c) === 0) throw new Error(`cluster ${c} is in a chain and free`);
      used.add(c);
      list.push(c);
    }
    return list;
  };
  const out = new Map<string, string>();
  const roots = wide
    ? chain(2).flatMap((c) => Array.from({ length: s.perCluster }, (_, k) => sectorOf(s, c) + k))
    : Array.from({ length: s.rootSectors }, (_, k) => s.rootAt + k);
  for (const sector of roots) {
    const list = block(b, sector);
    for (let at = 0; at < 512; at += 32) {
      if (list[at] === 0) return out;
      if (list[at] === 0xe5 || list[at + 11]! & 0x08) continue;
      const e = view(list);
      const size = e.getUint32(at + 28, true);
      const clusters = chain((wide ? e.getUint16(at + 20, true) << 16 : 0) | e.getUint16(at + 26, true));
      if (clusters.length !== Math.ceil(size / 512 / s.perCluster))
        throw new Error("a file of another size than its chain");
      const bytes = clusters.flatMap((c) =>
        Array.from({ length: s.perCluster }, (_, k) => [...block(b, sectorOf(s, c) + k)]).flat(),
      );
      const label = new TextDecoder().decode(list.slice(at, at + 11));
      out.set(
        `${label.slice(0, 8).trim()}.${label.slice(8).trim()}`,
        new TextDecoder().decode(Uint8Array.from(bytes.slice(0, size))),
      );
    }
  }
  return out;
}
