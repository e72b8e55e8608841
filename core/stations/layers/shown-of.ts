import { separate, type LayerPaint } from '../../engines/layers/index.js';
import { unite, type Rings } from '../../geometry/index.js';
import type { Around } from './decisions.js';

/** What is painted in one film, and the part of the design that it is of. */
export interface FramedPaint extends LayerPaint {
  readonly part?: string | undefined;
}

/** What a paint is of: its film, or its part of the design; what is of no part has none. */
export function keyOf(paint: FramedPaint, by: Around['by']): string {
  return by === 'films' ? paint.layer : (paint.part ?? '');
}

/** What shows of each film, or of each part of the design. */
export function shownBy(paints: readonly FramedPaint[], by: Around['by']): ReadonlyMap<string, Rings> {
  return new Map(
    separate(paints.map((paint) => ({ ...paint, layer: keyOf(paint, by) }))).layers.map(({ key, visible }) => [
      key,
      visible,
    ]),
  );
}

/** What shows of some films, or of some parts of the design, together. */
export function shownOf(paints: readonly FramedPaint[], ids: readonly string[], by: Around['by'] = 'films'): Rings {
  return unite([...shownBy(paints, by)].flatMap(([key, visible]) => (ids.includes(key) ? [...visible] : [])));
}
