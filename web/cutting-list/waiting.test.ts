import { describe, expect, it } from 'vitest';
import { seeded } from '../../core/testing/seeded.js';
import type { PlanReport } from '../../core/plan/index.js';
import type { JobSummary } from '../../core/recipe/index.js';
import { filmsThatWait, waitingOf } from './waiting.js';

const FILMS = ['chalk', 'tar', 'teal', 'ember'];
type ToCut = { film: string; areaMm2: number; copies: number; taken: number };

function jobOf(id: string, toCut: readonly ToCut[], stopped = false) {
  const findings = stopped ? [{ severity: 'blocker', stage: 'films', code: 'films.none', message: 'No film.' }] : [];
  const report = { toCut, findings } as unknown as PlanReport;
  return waitingOf({ id } as unknown as JobSummary, { report, error: null });
}

describe('what waits of each film', () => {
  it.each([1, 2, 3, 4, 5, 6, 7, 8])('is the sum over all layers that no cut has taken yet, seed %i', (seed) => {
    const random = seeded(seed);
    const below = (n: number) => Math.floor(random() * n);
    const layers = Array.from({ length: 40 }, () => ({
      job: `job ${below(9)}`,
      film: FILMS[below(4)]!,
      areaMm2: 1 + below(5000),
      copies: 1 + below(6),
      taken: below(8),
    }));
    const jobs = [...new Set(layers.map(({ job }) => job))];
    const stopped = new Set(jobs.filter(() => below(4) === 0));
    const rows = filmsThatWait(
      jobs.map((id) =>
        jobOf(
          id,
          layers.filter(({ job }) => job === id),
          stopped.has(id),
        ),
      ),
    );
    // Every copy by itself, as somebody counts who walks along the rack.
    const copies = layers.flatMap((layer) =>
      stopped.has(layer.job) ? [] : Array.from({ length: Math.max(0, layer.copies - layer.taken) }, () => layer),
    );
    for (const film of FILMS) {
      const its = copies.filter((copy) => copy.film === film);
      const row = rows.find(({ filmId }) => filmId === film);
      expect(row?.copies ?? 0).toBe(its.length);
      expect(row?.areaMm2 ?? 0).toBeCloseTo(
        its.reduce((sum, { areaMm2 }) => sum + areaMm2, 0),
        6,
      );
      expect([...(row?.jobIds ?? [])].sort()).toEqual([...new Set(its.map(({ job }) => job))].sort());
    }
    expect(copies.length).toBeGreaterThan(0);
    expect(rows.every(({ copies: left }) => left > 0)).toBe(true);
  });

  it('names the film first that most jobs need, then the one of which most is needed', () => {
    const rows = filmsThatWait([
      jobOf('a', [
        { film: 'teal', areaMm2: 900, copies: 1, taken: 0 },
        { film: 'tar', areaMm2: 10, copies: 1, taken: 0 },
      ]),
      jobOf('b', [
        { film: 'tar', areaMm2: 10, copies: 1, taken: 0 },
        { film: 'chalk', areaMm2: 1000, copies: 1, taken: 0 },
      ]),
    ]);
    expect(rows.map(({ filmId }) => filmId)).toEqual(['tar', 'chalk', 'teal']);
  });
});
