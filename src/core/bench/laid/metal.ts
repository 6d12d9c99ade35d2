/** Disjoint sets over places in a list, small and quick: what is joined with what. */
export class Metal {
  private readonly up: Int32Array;
  constructor(size: number, of?: Metal) {
    this.up = of ? of.up.slice() : Int32Array.from({ length: size }, (_, i) => i);
  }
  root(i: number): number {
    let r = i;
    while (this.up[r] !== r) r = this.up[r]!;
    while (this.up[i] !== r) {
      const next = this.up[i]!;
      this.up[i] = r;
      i = next;
    }
    return r;
  }
  join(a: number, b: number): void {
    const [x, y] = [this.root(a), this.root(b)];
    if (x !== y) this.up[Math.max(x, y)] = Math.min(x, y);
  }
}
