import { formatLength } from '../../words/index.js';

export function sayNoWrap(): string {
  return 'A wrap template is for round things: measure a mug, a flask, a tin or a tumbler first.';
}

export function sayTemplateTitle(kind: 'cylinder' | 'taper'): string {
  return kind === 'cylinder' ? 'Wrap template, straight sides' : 'Wrap template, tapered sides';
}

export function sayTemplateSize(roundMm: number, heightMm: number, isTaper: boolean): string {
  return `${formatLength(roundMm)} mm round${isTaper ? ' at the middle' : ''}, ${formatLength(heightMm)} mm ${isTaper ? 'along the slant' : 'high'}`;
}
