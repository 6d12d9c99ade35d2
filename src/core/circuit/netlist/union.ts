/** Disjoint sets over strings, with path compression. The smallest-index member stands for its set: deterministic. */
export class Union {
  private parent = new Map<string, string>();
  private order = new Map<string, number>();

  add(a: string) {
    if (this.parent.has(a)) return;
    this.order.set(a, this.parent.size);
    this.parent.set(a, a);
  }
  find(a: string): string {
    this.add(a);
    let root = a;
    while (this.parent.get(root) !== root) root = this.parent.get(root)!;
    for (let x = a; x !== root;) {
      const next = this.parent.get(x)!;
      this.parent.set(x, root);
      x = next;
    }
    return root;
  }
  join(a: string, b: string) {
    const [ra, rb] = [this.find(a), this.find(b)];
    if (ra === rb) return;
    const [low, high] = this.order.get(ra)! < this.order.get(rb)! ? [ra, rb] : [rb, ra];
    this.parent.set(high, low);
  }
  members(): Map<string, string[]> {
    const out = new Map<string, string[]>();
    for (const a of this.parent.keys()) {
      const root = this.find(a);
      const list = out.get(root);
      if (list) list.push(a);
      else out.set(root, [a]);
    }
    return out;
  }
}
