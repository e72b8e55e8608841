import { describe, expect, it } from 'vitest';
import { READ_AS_IT_IS } from '../index.js';
import { cssReader } from './css.js';
import { readSvg } from './read-svg.js';
import * as text from './text.js';

const drawn = (body: string, shines: 'drop' | 'keep') =>
  readSvg(
    new TextEncoder().encode(
      `<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="40mm" viewBox="0 0 40 40">${body}</svg>`,
    ),
    'a.svg',
    {
      repair: { ...READ_AS_IT_IS, shines },
      css: cssReader,
      text,
      hasFont: () => false,
      fontOf: () => null,
      typesetter: null,
      pictureOf: () => null,
    },
  );
const fading = (from: number, to: number, more = '') =>
  `<linearGradient id="g"><stop stop-color="#fff" stop-opacity="${from}"/>${more}<stop offset="1" stop-color="#fff" stop-opacity="${to}"/></linearGradient><circle cx="20" cy="20" r="9" fill="url(#g)"/>`;
const RED = '<rect width="40" height="40" fill="#b3262b"/>';

describe('shines and shadows', () => {
  it.each([
    ['a gradient that fades to nothing', fading(0.7, 0), true],
    ['a gradient that is mostly solid', fading(1, 0.4), false],
    [
      'a gradient that is solid for a short way only',
      fading(1, 0, '<stop offset=".2" stop-color="#fff" stop-opacity="0"/>'),
      true,
    ],
    ['a pale overlay', '<circle cx="20" cy="20" r="9" opacity="0.2"/>', true],
    ['a fill of its own opacity', '<circle cx="20" cy="20" r="9" fill-opacity="0.3"/>', true],
    ['a colour with alpha', '<circle cx="20" cy="20" r="9" fill="rgba(0,0,0,.3)"/>', true],
    ['a group that is more than half there', '<g opacity="0.6"><circle cx="20" cy="20" r="9"/></g>', false],
    ['a group that is hardly there', '<g opacity="0.6"><circle cx="20" cy="20" r="9" opacity=".6"/></g>', true],
    ['a shape without a fill', '<circle cx="20" cy="20" r="9" fill="none" stroke="#000" stroke-width="2"/>', false],
  ])('%s', (_, body, isShine) => {
    const [left, kept] = [drawn(RED + body, 'drop'), drawn(RED + body, 'keep')];
    expect([left.paints.length, kept.paints.length]).toEqual([isShine ? 1 : 2, 2]);
    expect(left.noticed.filter(({ code }) => code === 'shines-left')).toMatchObject(
      isShine ? [{ count: 1, where: { minX: expect.closeTo(11, 6), maxY: expect.closeTo(29, 6) } }] : [],
    );
  });

  it('are told as one, however many', () =>
    expect(drawn(RED + '<circle r="9" opacity=".1"/>'.repeat(40), 'drop').noticed).toMatchObject([
      { code: 'shines-left', count: 40 },
    ]));

  it('are none where there is nothing else', () => {
    const faint = drawn('<circle cx="20" cy="20" r="9" opacity=".3"/>', 'drop');
    expect(faint.paints).toHaveLength(1);
    expect(faint.noticed.map(({ code }) => code)).not.toContain('shines-left');
  });
});
