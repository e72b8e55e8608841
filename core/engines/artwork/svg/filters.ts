import { idOfUrl } from './context.js';
import type { XmlElement } from './xml.js';

/** What a filter does to an element: blurs it away, lays a soft shadow or glow round it, nothing, or something else. */
export type FilterKind = 'none' | 'blur' | 'shadow' | 'other';

/** Blurs by less than this are not seen, in user units. */
const UNSEEN = 0.01;

/** The kind of a `filter` value. A filter in which what it is given is laid over its blur is a shadow; one that only blurs, a blur. */
export function filterKind(value: string, byId: ReadonlyMap<string, XmlElement>): FilterKind {
  if (value === 'none') return 'none';
  const id = idOfUrl(value);
  const filter = id === undefined ? undefined : byId.get(id);
  if (!filter)
    return /^\s*drop-shadow\(/.test(value)
      ? 'shadow'
      : /^\s*blur\(\s*(?!0[a-z]*\s*\))/.test(value)
        ? 'blur'
        : /^\s*blur\(/.test(value)
          ? 'none'
          : 'other';
  const steps = all(filter);
  const blurs = steps.filter(({ name }) => name === 'feGaussianBlur');
  const takesWhole = (step: XmlElement) => ['in', 'in2'].some((name) => step.attributes[name] === 'SourceGraphic');
  if (steps.some(({ name }) => name === 'feDropShadow')) return 'shadow';
  if (blurs.length === 0) return 'other';
  if (steps.some((step) => takesWhole(step) && /^fe(MergeNode|Blend|Composite)$/.test(step.name))) return 'shadow';
  return blurs.every(({ attributes }) =>
    (attributes['stdDeviation'] ?? '0').split(/[\s,]+/).every((by) => Number(by) < UNSEEN),
  )
    ? 'none'
    : 'blur';
}

function all(element: XmlElement): XmlElement[] {
  return element.children.flatMap((child) => [child, ...all(child)]);
}
