import type { Matrix } from '../../../geometry/index.js';
import type { Clip } from '../artwork.js';
import type { ComputedStyle } from './style.js';
import type { XmlElement } from './xml.js';

/** What surrounds an element while a drawing is walked through. */
export interface Context {
  readonly matrix: Matrix;
  readonly style: ComputedStyle;
  readonly opacity: number;
  readonly clips: readonly Clip[];
  readonly viewport: { readonly width: number; readonly height: number };
  /** What `context-fill` and `context-stroke` come to in here; null for nothing. */
  readonly contextPaint?: Readonly<Record<'fill' | 'stroke', string | null>>;
  /** Elements being drawn through `use`, to catch a drawing that contains itself. */
  readonly using: readonly XmlElement[];
}

/** Elements that draw nothing by themselves. */
export const SILENT: ReadonlySet<string> = new Set([
  'defs',
  'symbol',
  'clipPath',
  'mask',
  'linearGradient',
  'radialGradient',
  'pattern',
  'marker',
  'filter',
  'style',
  'title',
  'desc',
  'metadata',
  'view',
  'stop',
  'font',
  'cursor',
]);

/** What a maker can find again. */
export function describe(element: XmlElement): string {
  const id = element.attributes['id'];
  return `<${element.name}${id ? ` id="${id.slice(0, 40)}"` : ''}> in line ${element.line}`;
}

/** The id that a property's `url(#…)` names. */
export function idOfUrl(value: string): string | undefined {
  return /^url\(\s*["']?#([^"')]+)["']?\s*\)/.exec(value)?.[1];
}
