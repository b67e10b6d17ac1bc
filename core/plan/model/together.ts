/** Numbers from 0 on in sets that grow together (union-find with path halving). */
export class Together {
  private readonly root: number[];
  constructor(n: number) {
    this.root = Array.from({ length: n }, (_, i) => i);
  }
  of(i: number): number {
    let at = i;
    while (this.root[at] !== at) {
      this.root[at] = this.root[this.root[at] as number] as number;
      at = this.root[at] as number;
    }
    return at;
  }
  /** True when two sets became one. */
  join(a: number, b: number): boolean {
    const [x, y] = [this.of(a), this.of(b)];
    this.root[x] = y;
    return x !== y;
  }
  /** The sets, in the order of their first members. */
  sets(): number[][] {
    const groups = new Map<number, number[]>();
    for (let i = 0; i < this.root.length; i++) {
      const known = groups.get(this.of(i));
      if (known) known.push(i);
      else groups.set(this.of(i), [i]);
    }
    return [...groups.values()];
  }
}
