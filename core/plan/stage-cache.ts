import { keyOf } from '../geometry/index.js';
import type { Stage, StageHooks } from '../stations/stage.js';

const DEPTH = 6;
/** A stage of single parts has as many at once as a job has parts. */
const DEPTH_OF_PARTS = 240;
const STAGES_OF_PARTS: ReadonlySet<string> = new Set([
  'part',
  'part compared',
  'part extent',
  'part painted',
  'traced',
]);

/**
 * Remembers the last few results of each stage by a key of exactly what it read. Small on purpose: a hand moves one decision to and
 * fro, and old geometry is large.
 *
 * What a stage made, and the bytes of a file, stand in the keys of others as their own key. All else must be plain data.
 */
export class StageCache {
  readonly #stages = new Map<string, Map<string, object | null>>();
  readonly #keys = new WeakMap<object, string>();

  /** Has the bytes of a file stand in keys as their hash. */
  know(bytes: Uint8Array, hash: string): void {
    if (!this.#keys.has(bytes)) this.#keys.set(bytes, `file ${hash}`);
  }

  /** What a stage makes of what there is, made at most once while it is remembered. One that throws is not remembered. */
  async take<Context, Read, Out extends object | null>(
    stage: Stage<Context, Read, Out>,
    context: Context,
    hooks: StageHooks = {},
  ): Promise<Out> {
    const read = stage.read(context);
    const key = `${stage.name} ${this.#keyOf(read)}`;
    const known = this.#stages.get(stage.name) ?? new Map<string, object | null>();
    this.#stages.set(stage.name, known);
    if (known.has(key)) {
      const out = known.get(key) as Out;
      known.delete(key);
      known.set(key, out);
      return out;
    }
    const out = await stage.run(read, hooks);
    // Some stages hand on what they were given, which has its key already.
    if (out && !this.#keys.has(out)) this.#keys.set(out, key);
    known.set(key, out);
    if (known.size > (STAGES_OF_PARTS.has(stage.name) ? DEPTH_OF_PARTS : DEPTH))
      known.delete(known.keys().next().value!);
    return out;
  }

  #keyOf(read: unknown): string {
    const plain = JSON.stringify(read, (_, value: unknown) => {
      if (typeof value !== 'object' || value === null) return value;
      const key = this.#keys.get(value);
      if (key !== undefined) return { made: key };
      // Coordinates and maps have no place in a key: what holds them is handed on whole.
      if (ArrayBuffer.isView(value) || value instanceof Map || value instanceof Set)
        throw new TypeError('A stage reads a part of what another made, instead of all of it.');
      return value;
    });
    return keyOf(plain);
  }
}
