import { describe, expect, it } from 'vitest';
import { inUnit } from './in-unit.js';

describe('a sentence in inches', () => {
  it.each([
    ['The design is {value} wide and 127 mm high.', 'The design is {value} wide and 5 in high.'],
    ['It is taken as 254 × 127 mm. What is one unit of it?', 'It is taken as 10 × 5 in. What is one unit of it?'],
    [
      'From 2.54 mm on, no bridge of it is thinner than 25.4 mm, the least.',
      'From 0.1 in on, no bridge of it is thinner than 1 in, the least.',
    ],
    ['Drop below 0.64 mm²', 'Drop below 0.64 mm²'],
    // A width of an inch and a quarter, said in tenths of a millimetre.
    ['The design is 31.8 mm high.', 'The design is 1.25 in high.'],
    ['Cut at 200 mm/s.', 'Cut at 200 mm/s.'],
    ['The 3 layers are built as {value}.', 'The 3 layers are built as {value}.'],
  ])('%s', (mm, inches) => {
    expect(inUnit(mm, 'in')).toBe(inches);
    expect(inUnit(mm, 'mm')).toBe(mm);
  });
});
