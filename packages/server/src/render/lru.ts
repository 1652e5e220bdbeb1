/** Keeps what was used last, up to a total weight. */
export class Lru<V> {
  private readonly entries = new Map<string, { value: V; weight: number }>();
  private total = 0;

  constructor(private readonly most: number) {}

  get(key: string): V | undefined {
    const entry = this.entries.get(key);
    if (!entry) return undefined;
    this.entries.delete(key);
    this.entries.set(key, entry);
    return entry.value;
  }

  set(key: string, value: V, weight: number): void {
    this.delete(key);
    this.entries.set(key, { value, weight });
    this.total += weight;
    for (const oldest of this.entries.keys()) {
      if (this.total <= this.most || oldest === key) break;
      this.delete(oldest);
    }
  }

  delete(key: string): void {
    const entry = this.entries.get(key);
    if (!entry) return;
    this.entries.delete(key);
    this.total -= entry.weight;
  }
}
