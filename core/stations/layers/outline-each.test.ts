import { describe, expect, it } from 'vitest';
import { drawingPart, letteringPart, newLettering, type ArtworkPart } from '../artwork/index.js';
import { surfaceSlice } from '../surface/index.js';
import { ruledOutlineEach } from './outline-each.js';

const { surface } = surfaceSlice.beginning;
const drawing = (id: string, sha = '0'): ArtworkPart => ({
  ...drawingPart({ id, fileName: `${id}.svg`, sha256: sha.repeat(64) }),
  id,
});
const words = (text: string) => letteringPart(text, newLettering(text));

describe('a new outline', () => {
  it.each([
    ['one part', [drawing('a')], 'all'],
    ['two drawings that belong together', [drawing('a'), drawing('b', '1')], 'all'],
    ['copies of one drawing', [drawing('a'), drawing('b'), drawing('c')], 'part'],
    ['copies with words of their own', [words('Ada'), words('Bram')], 'part'],
    ['a drawing and words', [drawing('a'), words('Ada')], 'all'],
    ['groups', [drawing('a'), drawing('b')].map((part) => ({ ...part, group: 'g' })), 'all'],
  ] as const)('goes round %s', (_, parts, each) => expect(ruledOutlineEach(parts, surface)).toBe(each));

  it('goes round each part that is laid by itself', () => {
    const apart = { ...surface, panels: { ...surface.panels, split: 'parts' as const } };
    expect(ruledOutlineEach([drawing('a'), drawing('b', '1')], apart)).toBe('part');
  });
});
