const DEPTH = 6;
/** A stage of single parts has as many at once as a job has parts. */
const DEPTH_OF_PARTS = 240;

/**
 * Remembers the last few results of each stage by a key of exactly what it read. Small on purpose: a hand moves one decision to and
 * fro, and old geometry is large.
 */
export class StageCache {
  readonly #stages = new Map<string, Map<string, unknown>>();

  /** The same for a computation that waits. */
  async takeLater<T>(stage: string, key: string, compute: () => Promise<T>): Promise<T> {
    const known = this.#stages.get(stage);
    if (known?.has(key)) return this.take(stage, key, () => known.get(key) as T);
    const value = await compute();
    return this.take(stage, key, () => value);
  }

  /** The result for `key`, computed at most once while it is remembered. A computation that throws is not remembered. */
  take<T>(stage: string, key: string, compute: () => T): T {
    const known = this.#stages.get(stage) ?? new Map<string, unknown>();
    this.#stages.set(stage, known);
    if (known.has(key)) {
      const value = known.get(key) as T;
      known.delete(key);
      known.set(key, value);
      return value;
    }
    const value = compute();
    known.set(key, value);
    if (known.size > (stage.startsWith('part ') ? DEPTH_OF_PARTS : DEPTH)) known.delete(known.keys().next().value!);
    return value;
  }
}

/** A short key of plain data: equal data, equal key (two 32-bit FNV-1a runs over its JSON). */
export function keyOf(...parts: readonly unknown[]): string {
  const text = JSON.stringify(parts);
  let a = 0x811c9dc5;
  let b = 0x2f0b4c47;
  for (let i = 0; i < text.length; i += 1) {
    const c = text.charCodeAt(i);
    a = Math.imul(a ^ c, 0x01000193);
    b = Math.imul(b ^ (c + i), 0x01000193);
  }
  return `${(a >>> 0).toString(16)}${(b >>> 0).toString(16)}`;
}
