import type { Laying } from '../../engines/layers/index.js';

/** A layer as assembly looks at it. */
export interface AssemblyLayer {
  readonly filmName: string;
  readonly filmId: string;
  /** 1 is nearest the surface. */
  readonly order: number;
  readonly counters: number;
}

/** What is done at one step, and which layers lie there once it is done (film ids, lowest first as they lie). */
export interface StepFigures {
  readonly act: 'weed' | 'lay-first' | 'lay-over' | 'pick-up' | 'add-behind' | 'apply' | 'finish' | 'lift-marks';
  readonly layer: AssemblyLayer | null;
  readonly done: readonly string[];
}

/**
 * The assembly in order. On the surface the layer nearest it goes down first; on tape the front layer is picked up first and the
 * others follow backwards, so the order turns over and the work is seen from behind. No layers, no steps.
 */
export function assemblyOrder(layers: readonly AssemblyLayer[], way: Laying, hasMarks: boolean): StepFigures[] {
  if (layers.length === 0) return [];
  const upwards = [...layers].sort((a, b) => a.order - b.order);
  const isOnTape = way === 'tape';
  let done: readonly string[] = [];
  const laid = (isOnTape ? [...upwards].reverse() : upwards).map((layer, i): StepFigures => {
    done = isOnTape ? [layer.filmId, ...done] : [...done, layer.filmId];
    return { act: isOnTape ? (i === 0 ? 'pick-up' : 'add-behind') : i === 0 ? 'lay-first' : 'lay-over', layer, done };
  });
  return [
    { act: 'weed', layer: null, done: [] },
    ...laid,
    { act: isOnTape ? 'apply' : 'finish', layer: null, done },
    ...(isOnTape && hasMarks ? [{ act: 'lift-marks', layer: null, done } as const] : []),
  ];
}
