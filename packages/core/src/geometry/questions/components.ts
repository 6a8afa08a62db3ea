import { gather } from '../../lists/gather.ts';

/**
 * Connected components of things that are joined in pairs: disjoint sets in one array, each thing pointing on towards its
 * set's head, with path halving (Tarjan and van Leeuwen, "Worst-case Analysis of Set Union Algorithms", 1984).
 */
export class Components {
  private readonly heads: Int32Array;

  /** @param count how many things there are, each alone at first; a whole number from 0 on */
  constructor(count: number) {
    if (!Number.isInteger(count) || count < 0)
      throw new RangeError(`Components: count must be 0 or more, got ${count}`);
    this.heads = Int32Array.from({ length: count }, (_, i) => i);
  }

  /** Puts two things, by their places, into one component. */
  join(a: number, b: number): void {
    this.heads[this.headOf(a)] = this.headOf(b);
  }

  /** @returns the places of each component's things, in order; components by their first */
  list(): number[][] {
    const byHead = new Map<number, number[]>();
    for (let i = 0; i < this.heads.length; i++) {
      gather(byHead, this.headOf(i), i);
    }
    return [...byHead.values()];
  }

  private headOf(i: number): number {
    const { heads } = this;
    let index = i;
    while (heads[index] !== index) {
      heads[index] = heads[heads[index]];
      index = heads[index];
    }
    return index;
  }
}
