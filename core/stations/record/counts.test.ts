import { describe, expect, it } from 'vitest';
import { countCuts, NOTHING_CUT } from './index.js';

describe('what is cut of a job', () => {
  it('is counted once, though two designs are alike', () => {
    const wanted = [
      { fingerprint: 'a', copies: 2 },
      { fingerprint: 'a', copies: 1 },
      { fingerprint: 'b', copies: 1 },
    ];
    expect(countCuts({ ...NOTHING_CUT, good: { a: 2, c: 9 } }, wanted)).toMatchObject({ copies: 2, ofCopies: 4 });
    expect(countCuts({ ...NOTHING_CUT, good: { a: 5, b: 1 } }, wanted)).toMatchObject({ copies: 4, ofCopies: 4 });
  });
});
