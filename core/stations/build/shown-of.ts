import { separate, type LayerPaint } from '../../engines/layers/index.js';
import { unite, type Rings } from '../../geometry/index.js';
import type { Around } from './decisions.js';

/** What is painted in one film, and the part of the design that it is of. */
export interface FramedPaint extends LayerPaint {
  readonly part?: string | undefined;
}

/** What shows of some films, or of some parts of the design. */
export function shownOf(paints: readonly FramedPaint[], ids: readonly string[], by: Around['by'] = 'films'): Rings {
  const labelled = by === 'films' ? paints : paints.map((paint) => ({ ...paint, layer: paint.part ?? '' }));
  return unite(separate(labelled).layers.filter(({ key }) => ids.includes(key)).flatMap(({ visible }) => [...visible]));
}
