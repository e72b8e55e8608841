import { describe, expect, it } from 'vitest';
import { colourName } from './index.js';

describe('the name of a colour', () => {
  it.each([
    ['#ff0000', 'red'],
    ['#ffffff', 'white'],
    ['#f7f5ef', 'white'],
    ['#000000', 'black'],
    ['#16181a', 'black'],
    ['#0000ff', 'blue'],
    ['#808080', 'medium grey'],
    ['#8b4513', 'strong brown'],
    ['#1d4e89', 'deep blue'],
    ['#b3262b', 'vivid red'],
    ['#1f6b45', 'deep yellowish green'],
    ['#ffa500', 'orange'],
    ['#843f5b', 'dark purplish red'],
  ])('%s is %s', (hex, name) => expect(colourName(hex)).toBe(name));

  it('is plain words for every colour', () => {
    for (let i = 0; i < 512; i += 1) {
      const hex = `#${[i >> 6, (i >> 3) & 7, i & 7]
        .map((v) =>
          Math.round((v * 255) / 7)
            .toString(16)
            .padStart(2, '0'),
        )
        .join('')}`;
      expect(colourName(hex)).toMatch(/^[a-z]+( [a-z]+){0,3}$/);
    }
  });
});
