import { describe, expect, it } from 'vitest';
import { countCuts, NOTHING_CUT } from '../stations/record/index.js';
import { STATIONS } from '../words/index.js';
import { jobCard, type JobFigures } from './job-card.js';

const done: JobFigures = {
  parts: 1,
  colours: 4,
  films: 3,
  design: { widthMm: 230, heightMm: 117.5 },
  trapMm: 0.65,
  counters: 1,
  sheets: 2,
  seconds: 130,
  steps: 6,
  worst: {},
};
const wanted = [
  { fingerprint: 'a', copies: 2 },
  { fingerprint: 'b', copies: 2 },
];
const states = (figures: JobFigures | null, cuts = countCuts(NOTHING_CUT, wanted)) =>
  jobCard(figures, cuts, 'mm').map(({ state }) => state);

describe('the job card', () => {
  it('has every station in working order, whatever is known of a job', () => {
    for (const figures of [null, { parts: 0, worst: {} }, done])
      expect(jobCard(figures, countCuts(NOTHING_CUT), 'mm').map(({ station }) => station)).toEqual([...STATIONS]);
  });

  it('invites at the artwork of a new job, and stops nothing', () => {
    const card = jobCard({ parts: 0, worst: { artwork: 'note' } }, countCuts(NOTHING_CUT), 'mm');
    expect(card[0]).toEqual({ station: 'artwork', state: 'needs you', figure: 'start here' });
    expect(card.slice(1).every(({ state, figure }) => state === 'waiting' && figure === '')).toBe(true);
  });

  it('shows the key figures in the unit that is asked for', () => {
    expect(jobCard(done, countCuts(NOTHING_CUT, wanted), 'mm').map(({ figure }) => figure)).toEqual([
      '4 colours',
      '3 films',
      '230 × 117.5',
      'trap 0.65',
      '1 counter',
      '2 sheets',
      '2 min',
      '6 steps',
      '',
    ]);
    expect(jobCard(done, countCuts(NOTHING_CUT, wanted), 'cm')[2]!.figure).toBe('23 × 11.75');
  });

  it('asks for the maker where something is found, and blocks where that stops the job', () => {
    expect(states({ ...done, worst: { films: 'warning', build: 'note', sheets: 'blocker' } })).toEqual([
      'settled',
      'needs you',
      'settled',
      'has notes',
      'settled',
      'blocked',
      'needs you',
      'settled',
      'waiting',
    ]);
  });

  it('says how far the job is cut, what waits for a decision, and what was not judged', () => {
    const half = countCuts(
      { good: { a: 2, b: 1, old: 9 }, undecided: 0, finished: 2, judged: 1, unweeded: [] },
      wanted,
    );
    expect([half.copies, half.ofCopies]).toEqual([3, 4]);
    expect(jobCard(done, half, 'mm').slice(5)).toMatchObject([
      { figure: '2 sheets' },
      { state: 'needs you' },
      {},
      { state: 'needs you', figure: '3 of 4 cut' },
    ]);
    const all = countCuts({ good: { a: 2, b: 3 }, undecided: 0, finished: 2, judged: 2, unweeded: [] }, wanted);
    expect(jobCard({ ...done, sheets: 0, seconds: 0 }, all, 'mm').slice(5)).toMatchObject([
      { figure: 'all cut' },
      { figure: 'all cut', state: 'settled' },
      {},
      { figure: '4 of 4 cut', state: 'settled' },
    ]);
    // Assemble waits until everything is ticked off the weed maps.
    expect(jobCard(done, { ...all, unweeded: [{ film: 'Chalk', left: 2, copies: 1 }] }, 'mm')[7]).toMatchObject({
      station: 'assemble',
      state: 'needs you',
    });
    expect(jobCard(done, all, 'mm')[7]).toMatchObject({ state: 'settled' });
    expect(jobCard(done, { ...half, undecided: 1 }, 'mm')[6]).toMatchObject({
      state: 'needs you',
      figure: '1 to decide',
    });
  });
});
