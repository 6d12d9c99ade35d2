interface Bounded {
  bound: number;
}

/**
 * Subtrees still to be searched. Until a first plan stands the newest comes first, so that one stands soon; from then on
 * the one that promises most, the newest of equals, so that the proof looks at no subtree that it could spare. Bounds are
 * compared by whole multiples of `unit`.
 */
export class OpenNodes<T extends Bounded> {
  private readonly newest: T[] = [];
  private readonly steps = new Map<number, T[]>();
  private keys: number[] = [];
  size = 0;

  constructor(private readonly unit: number) {}

  push(node: T) {
    this.newest.push(node);
    this.size++;
  }

  /** Sorts in what came since the last time. */
  private sortIn() {
    for (const node of this.newest) {
      const key = Math.floor(node.bound / this.unit);
      const step = this.steps.get(key);
      if (step) {
        step.push(node);
        continue;
      }
      this.steps.set(key, [node]);
      this.keys.push(key);
      this.keys.sort((a, b) => b - a);
    }
    this.newest.length = 0;
  }

  /** The next one, or undefined when nothing is open. */
  pop(promising: boolean): T | undefined {
    if (promising) this.sortIn();
    const plain = this.newest.pop();
    if (plain) {
      this.size--;
      return plain;
    }
    const key = this.keys.at(-1);
    if (key === undefined) return undefined;
    const step = this.steps.get(key)!;
    const node = step.pop()!;
    if (!step.length) {
      this.steps.delete(key);
      this.keys.pop();
    }
    this.size--;
    return node;
  }

  clear() {
    this.newest.length = 0;
    this.steps.clear();
    this.keys = [];
    this.size = 0;
  }

  /** The lowest bound of all that is open; Infinity when nothing is. */
  least(): number {
    let least = Infinity;
    for (const n of this.newest) least = Math.min(least, n.bound);
    for (const step of this.steps.values()) for (const n of step) least = Math.min(least, n.bound);
    return least;
  }
}
