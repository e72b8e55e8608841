import type { Laying } from '../../engines/layers/index.js';
import type { PressFigures } from '../../shop/index.js';

/** A layer as assembly looks at it. */
export interface AssemblyLayer {
  readonly filmName: string;
  readonly filmId: string;
  /** 1 is nearest the surface. */
  readonly order: number;
  readonly counters: number;
  /** How foil is pressed that is laid on it; null where it is a film. */
  readonly foil: PressFigures | null;
}

/** What is done at one step, and which layers lie there once it is done (film ids, lowest first as they lie, seen from in front). */
export interface StepFigures {
  readonly act:
    | 'weed'
    | 'panels'
    | 'lay-first'
    | 'lay-over'
    | 'lay-behind'
    | 'pick-up'
    | 'add-behind'
    | 'add-over'
    | 'apply'
    | 'finish'
    | 'lift-marks'
    | 'part';
  readonly layer: AssemblyLayer | null;
  readonly done: readonly string[];
}

/** How it is put together. */
export interface AssemblyHow {
  readonly way: Laying;
  /** On the inner face of glass, read from outside. */
  readonly isInside: boolean;
  readonly hasMarks: boolean;
  readonly isInPanels: boolean;
  /** Copies are put together strip by strip, and parted at the end. */
  readonly isInStrips: boolean;
}

/**
 * The assembly in order. On the surface the layer nearest it goes down first; on tape the front layer is picked up first and the
 * others follow backwards, so the order turns over and the work is seen from behind. Behind glass the front lies nearest the surface, so both turn over once
 * more. No layers, no steps.
 */
export function assemblyOrder(
  layers: readonly AssemblyLayer[],
  { way, isInside, hasMarks, isInPanels, isInStrips }: AssemblyHow,
): StepFigures[] {
  if (layers.length === 0) return [];
  const upwards = [...layers].sort((a, b) => a.order - b.order);
  const isOnTape = way === 'tape';
  const fromFront = isOnTape !== isInside;
  let done: readonly string[] = [];
  const next = isOnTape ? (fromFront ? 'add-behind' : 'add-over') : fromFront ? 'lay-behind' : 'lay-over';
  const laid = (fromFront ? [...upwards].reverse() : upwards).map((layer, i): StepFigures => {
    done = fromFront ? [layer.filmId, ...done] : [...done, layer.filmId];
    return { act: i > 0 ? next : isOnTape ? 'pick-up' : 'lay-first', layer, done };
  });
  return [
    { act: 'weed', layer: null, done: [] },
    ...(isInPanels ? [{ act: 'panels', layer: null, done: [] } as const] : []),
    ...laid,
    { act: isOnTape ? 'apply' : 'finish', layer: null, done },
    ...(isOnTape && hasMarks ? [{ act: 'lift-marks', layer: null, done } as const] : []),
    ...(isInStrips ? [{ act: 'part', layer: null, done } as const] : []),
  ];
}
