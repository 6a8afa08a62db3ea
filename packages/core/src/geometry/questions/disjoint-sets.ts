/** Things by their places in a list, put together in sets (Tarjan, 1975: union-find with paths halved). */
export class DisjointSets {
  private readonly parent: Int32Array;

  constructor(count: number) {
    this.parent = Int32Array.from({ length: count }, (_, i) => i);
  }

  /** The first member of a thing's set. */
  firstOf(i: number): number {
    const { parent } = this;
    let node = i;
    while (parent[node] !== node) {
      parent[node] = parent[parent[node]];
      node = parent[node];
    }
    return node;
  }

  join(a: number, b: number): void {
    const [first, second] = [this.firstOf(a), this.firstOf(b)];
    this.parent[Math.max(first, second)] = Math.min(first, second);
  }

  /** Every set by its first member, its members in their order. */
  sets(): Map<number, number[]> {
    const out = new Map<number, number[]>();
    for (let i = 0; i < this.parent.length; i++) {
      const first = this.firstOf(i);
      const known = out.get(first);
      if (known) known.push(i);
      else out.set(first, [i]);
    }
    return out;
  }
}
